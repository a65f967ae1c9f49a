"use client";

import { JAR_STATUS_WORDS } from "@hearth/core";
import type { ReactNode } from "react";
import { FindBar, ShowAll } from "@/catalogue/find-bar";
import { useWorkshop } from "@/log/workshop";
import type { FoundLot, TracedBatch } from "@/server/inventory/trace";
import { Link } from "@/ui/address";
import { Aside, Caution, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { type firstOfRecall, type RecallTotals, wholeRecall } from "./model";

interface RecallProps {
  q: string;
  /** The lots that were looked for, and how many there are; null if none were. */
  found: { first: FoundLot[]; total: number } | null;
  traced: ({ lot: FoundLot; totals: RecallTotals } & ReturnType<typeof firstOfRecall>) | null;
}

/** Something to be done, with a box to tick on paper. */
const Todo = ({ many, children }: { many?: number; children: ReactNode }) => (
  <li className="flex items-baseline gap-3 border-b border-line py-2">
    <span aria-hidden="true" className="inline-block size-5 shrink-0 border-2 border-ink" />
    {many === undefined ? null : <span className="figure text-[26px]">{many}</span>}
    <span className="min-w-0">{children}</span>
  </li>
);
const BatchLink = ({ batch, at }: { batch: TracedBatch; at: "records" | "bench" }) => (
  <Link className="font-bold underline" href={`/${at}/${batch.id}`}>
    batch {batch.number}
  </Link>
);

/** The lots that were found, to choose the one to recall. */
function LotsFound({ found }: Pick<RecallProps, "found">) {
  const units = useUnits();
  return (
    <ul>
      {(found?.first ?? []).map((foundLot) => (
        <li key={foundLot.id} className="grid items-center gap-x-4 border-b border-line py-2 sm:grid-cols-[minmax(0,1fr)_auto]">
          <span>
            <strong>{foundLot.material}</strong>, lot {foundLot.code || "without a code"}, received {units.onDate(foundLot.receivedOn)}
          </span>
          <Link
            className="press"
            href={`/sell/recall?lot=${foundLot.id}`}
            aria-label={`Recall lot: ${foundLot.material}, lot ${foundLot.code || units.onDate(foundLot.receivedOn)}`}
          >
            Recall lot
          </Link>
        </li>
      ))}
      {found?.first.length ? null : <li className="py-3 text-soft">{found ? "No matching lot." : "Type a lot code, or the name of a material."}</li>}
    </ul>
  );
}

/** How much it is of, and where it went. */
function Totals({ totals }: { totals: RecallTotals }) {
  const units = useUnits();
  const counted = (n: number, one: string, many: string) => `${units.n(n, 0)} ${n === 1 ? one : many}`;
  return (
    <section aria-label="In total">
      <p className="text-[20px] font-bold">
        {[
          counted(totals.batches, "batch", "batches"),
          counted(totals.jars, "jar", "jars"),
          counted(totals.orders, "order or market day", "orders and market days"),
        ].join(", ")}
      </p>
      <p className="text-soft">{totals.statuses.map(({ status, jars }) => `${units.n(jars, 0)} ${JAR_STATUS_WORDS[status]}`).join(", ")}</p>
    </section>
  );
}

/** What is to be done, in order: set aside what is here, tell those who have some, look through every jar. */
function ToDo({ traced }: { traced: NonNullable<RecallProps["traced"]> }) {
  const units = useUnits();
  const { here, loose, pots, reached, byHand } = traced.list;
  const all = wholeRecall(traced.lot.id);
  return (
    <div className="flex flex-col gap-6">
      <Totals totals={traced.totals} />
      <section aria-label="Set aside here">
        <h2 className="border-b-[3px] border-ink pb-1">1. Set aside here</h2>
        <ul>
          {loose.map(({ batch, jars }) => (
            <Todo key={batch.id} many={jars}>
              loose of <BatchLink batch={batch} at="records" />, {batch.title}
            </Todo>
          ))}
          {pots.map((batch) => (
            <Todo key={batch.id}>
              the pot of <BatchLink batch={batch} at="bench" />, {batch.title}: not poured yet
            </Todo>
          ))}
          {here.map((row) => (
            <Todo key={row.packRunId} many={row.here}>
              packs of <strong>{row.packed}</strong>, with pieces of batch {row.batches.join(", ")}
            </Todo>
          ))}
        </ul>
        <ShowAll left={traced.left.here} href={all} />
      </section>
      <section aria-label="Notify">
        <h2 className="border-b-[3px] border-ink pb-1">2. Notify</h2>
        {reached.length === 0 ? <p className="py-2 text-soft">None of it was shipped or taken to a market.</p> : null}
        <ul>
          {reached.map((item) => (
            <Todo key={item.id}>
              <Link className="font-bold underline" href={`/sell/${item.id}`}>
                {item.what === "order" ? "order" : "market day"} {item.number}, {item.name}
              </Link>
              {item.on ? `, ${units.onDate(item.on)}` : ""}: {item.packs.join(", ")}
              {item.whom ? <span className="block text-[15px]">{item.whom}</span> : null}
            </Todo>
          ))}
          {byHand.map((batch) => (
            <Todo key={batch.id}>
              batch {batch.number}, by hand: {batch.whom.join(", ")}
            </Todo>
          ))}
        </ul>
        <ShowAll left={traced.left.reached} href={all} />
      </section>
      <section aria-label="Every batch">
        <h2 className="border-b-[3px] border-ink pb-1">3. Every jar</h2>
        <ul>
          {traced.batches.map((batch) => (
            <li key={batch.id} className="border-b border-line py-2">
              <Link className="font-bold underline" href={`/records/${batch.id}`}>
                batch {batch.number}
              </Link>
              , {batch.title}:{" "}
              {batch.pouredAt === null
                ? "not poured yet"
                : `${batch.jars} jars: ${batch.jarStatuses.map((status) => `${status.jars} ${JAR_STATUS_WORDS[status.status]}`).join(", ")}`}
            </li>
          ))}
        </ul>
        <ShowAll left={traced.left.batches} href={all} />
      </section>
    </div>
  );
}

/** From a lot of anything to every jar and order: a list to act on. */
export function RecallView({ q, found, traced }: RecallProps) {
  const units = useUnits();
  const { workshopId } = useWorkshop();
  const isWhole = traced !== null && Object.values(traced.left).every((left) => left === 0);
  return (
    <PageLayout
      title={traced ? `Recall: ${traced.lot.material}, lot ${traced.lot.code || units.onDate(traced.lot.receivedOn)}` : "Recall a lot"}
      lead="Batches, jars and buyers of one lot."
      actions={
        traced ? (
          <>
            {isWhole ? (
              <button type="button" className="press" onClick={() => print()}>
                Print the list
              </button>
            ) : (
              <Link className="press" href={wholeRecall(traced.lot.id)}>
                Show all, to print
              </Link>
            )}
            <a className="press" href={`/api/workshops/${workshopId}/recall?lot=${traced.lot.id}`} download>
              Download CSV
            </a>
          </>
        ) : undefined
      }
      side={
        <>
          <Caution title="Stop first">
            Set aside what is still here before you notify anybody. Your local rules decide what a recall must say, and to whom.
          </Caution>
          <Aside title="First in, first out">Which batch used which lot follows from what was weighed, oldest lot first, and from each stock count.</Aside>
        </>
      }
    >
      <FindBar what="lots by code or material" found={found?.total} />
      {!traced ? (
        <>
          <LotsFound found={found} />
          <ShowAll left={found ? found.total - found.first.length : 0} href={`/sell/recall?q=${encodeURIComponent(q)}&show=${found?.total}`} />
        </>
      ) : traced.totals.batches === 0 ? (
        <p className="text-soft">No batch used this lot.</p>
      ) : (
        <ToDo traced={traced} />
      )}
    </PageLayout>
  );
}
