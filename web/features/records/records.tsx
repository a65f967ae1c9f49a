"use client";

import { FindBar, NothingFound, Older } from "@/catalogue/find-bar";
import { BatchRow } from "@/log/row";
import type { Listed, ReadInstrument } from "@/server/batches/batches";
import { Link } from "@/ui/address";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";

/** The closed records. */
export function Records({
  batches,
  instruments,
  more,
  narrowed,
}: {
  batches: Listed[];
  instruments: ReadInstrument[];
  more: string | null;
  narrowed: boolean;
}) {
  const units = useUnits();
  return (
    <PageLayout
      title="Records"
      lead="Closed batches, kept whole."
      actions={
        <Link className="press" href="/records/import">
          Import a record
        </Link>
      }
      side={<Aside title="Why keep them">When a candle disappoints, the answer is in what was different from the batches that were fine.</Aside>}
    >
      {batches.length > 0 || narrowed ? (
        <FindBar
          what="the records"
          filters={[
            {
              key: "state",
              label: "Ended",
              options: [
                { value: "", label: "all" },
                { value: "closed", label: "closed" },
                { value: "abandoned", label: "abandoned" },
              ],
            },
          ]}
          found={more ? undefined : batches.length}
        />
      ) : null}
      {batches.length === 0 && narrowed ? (
        <NothingFound what="record" />
      ) : batches.length === 0 ? (
        <Empty
          title="No record closed yet"
          action={
            <Link className="press" href="/rack">
              Go to the rack
            </Link>
          }
        >
          <p>
            When a batch is inspected and you are done with it, close its record. It then stands here with its heat line, its amounts and its flaws. Open a
            batch from the rack to close it.
          </p>
        </Empty>
      ) : (
        <ul>
          {batches.map((one, index) => (
            <BatchRow
              key={one.id}
              batch={one}
              href={`/records/${one.id}`}
              instruments={instruments}
              first={index === 0}
              what={
                one.abandoned
                  ? `abandoned${one.abandoned.why ? `: ${one.abandoned.why}` : ""}; the wax was ${one.abandoned.wax}`
                  : `${one.flaws === 0 ? "no flaws" : one.flaws === 1 ? "1 flaw" : `${one.flaws} flaws`}${one.closed?.missing.length ? `, closed without ${one.closed.missing.join(", ")}` : ""}`
              }
              action="Read it"
            >
              <div className="text-[15px] text-soft">
                {one.closed ? `closed ${units.day(one.closed.at)}` : one.abandoned ? `abandoned ${units.day(one.abandoned.at)}` : ""}
              </div>
            </BatchRow>
          ))}
        </ul>
      )}
      <Older after={more}>Older records</Older>
    </PageLayout>
  );
}
