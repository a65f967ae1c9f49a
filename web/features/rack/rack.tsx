"use client";

import { FindBar, type LongListProps, NothingFound, OlderNewer } from "@/catalogue/find-bar";
import { BatchRow } from "@/log/row";
import type { Listed, ReadInstrument } from "@/server/batches/batches";
import { CureBar, PHASE } from "@/ui/cure-bar";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { useNow, useUnits } from "@/ui/units";

/** Returns whether it still sets, cures, or has cured, by the clock. */
const phaseOf = (item: Listed, now: string) => {
  const at = Date.parse(now);
  if (!item.times) return "pot" as const;
  return at < Date.parse(item.times.setAt) ? ("setting" as const) : at < Date.parse(item.times.sellFrom) ? ("curing" as const) : ("ready" as const);
};

interface RackProps extends LongListProps {
  batches: Listed[];
  instruments: ReadInstrument[];
}

/** The rack: batches that are setting or curing, the most urgent first. */
export function Rack({ batches, instruments, older, newer, narrowed, filters }: RackProps) {
  const now = useNow(30_000);
  const units = useUnits();
  const first = batches.find((batch) => batch.next !== null) ?? batches.find((batch) => phaseOf(batch, now) !== "setting" && !batch.lookedAt);
  return (
    <PageLayout
      title="Rack"
      lead="Batches that are setting and curing, the most urgent first."
      side={
        <>
          <Aside title="Setting">Do not move jars for a day, out of sun and drafts. Space them evenly, so that each jar cools the same all around.</Aside>
          <Aside title="Testing too early">
            Wax hardens as it cures. A wick that floods the pool on day one may be right, or tunnel, in week two. Times follow the process; the supplier's data
            comes first.
          </Aside>
          <Aside title="Selling">Curing is not a safety test. Burn tests, labels and your local rules decide.</Aside>
        </>
      }
    >
      {batches.length > 0 || narrowed ? (
        <FindBar
          what="the rack"
          {...filters}
          filters={[
            {
              key: "state",
              label: "State",
              options: [
                { value: "", label: "all" },
                { value: "setting", label: "setting" },
                { value: "look", label: "to inspect" },
                { value: "curing", label: "curing" },
                { value: "ready", label: "cured" },
              ],
            },
          ]}
          found={older || newer ? undefined : batches.length}
        />
      ) : null}
      {batches.length === 0 && narrowed ? (
        <NothingFound what="batch" />
      ) : batches.length === 0 ? (
        <Empty title="Nothing is setting or curing">
          <p>A batch comes here when it is marked poured on the bench. It then says until when to leave it, when it ready to burn-test and when it is cured.</p>
        </Empty>
      ) : (
        <ul>
          {batches.map((batch) => {
            const phase = phaseOf(batch, now);
            const look = phase !== "setting" && !batch.lookedAt;
            return (
              <BatchRow
                key={batch.id}
                batch={batch}
                href={batch.next ? `/bench/${batch.id}` : look ? `/inspect/${batch.id}` : `/rack/${batch.id}`}
                at={`/rack/${batch.id}`}
                instruments={instruments}
                first={batch === first}
                what={
                  <>
                    {batch.next ? `next: ${batch.next.name}${batch.pouredAt ? ", " : ""}` : ""}
                    {phase === "setting" && batch.times
                      ? `setting, do not move until ${units.dayClock(batch.times.setAt)}`
                      : batch.pouredAt
                        ? PHASE[phase]
                        : ""}
                    {batch.shelf ? `, ${batch.shelf}` : ""}
                    {batch.released ? ", released" : ""}
                    {batch.onRack < batch.products.reduce((sum, product) => sum + product.count, 0) && batch.pouredAt ? `, ${batch.onRack} left` : ""}
                    {batch.lookedAt ? ", inspected" : phase === "setting" || !batch.pouredAt ? "" : ", not inspected yet"}
                    {batch.stopped > 0 ? <span className="text-safety"> · ⚠ {batch.stopped} must not be sold</span> : null}
                  </>
                }
                action={batch.next ? "Go to the pot" : look ? "Inspect batch" : "Open on the rack"}
              >
                <CureBar times={batch.times} pouredAt={batch.pouredAt} now={now} />
              </BatchRow>
            );
          })}
        </ul>
      )}
      <OlderNewer older={older} newer={newer} what="batches" />
    </PageLayout>
  );
}
