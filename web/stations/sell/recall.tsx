"use client";

import { FATE_WORDS } from "@hearth/core";
import Link from "next/link";
import { FindBar } from "@/catalogue/find-bar";
import type { RecallRow } from "@/server/orders";
import type { FoundLot, TracedBatch } from "@/server/trace";
import { Aside, Caution, Screen } from "@/ui/margin";
import { useUnits } from "@/ui/units";

interface RecallProps {
  found: FoundLot[];
  asked: boolean;
  traced: { lot: FoundLot; batches: TracedBatch[]; rows: RecallRow[] } | null;
}

/** From a lot of anything to every jar and order: a list to act on. */
export function RecallView({ found, asked, traced }: RecallProps) {
  const units = useUnits();
  const orders = new Map<string, { id: string; name: string; number: number; what: string; whom: string; on: string | null; packs: string[]; out: number }>();
  for (const row of traced?.rows ?? [])
    for (const one of row.out) {
      const there = orders.get(one.orderId) ?? {
        id: one.orderId,
        name: one.name,
        number: one.number,
        what: one.what,
        whom: one.whom,
        on: one.on,
        packs: [],
        out: 0,
      };
      const gone = one.out - one.back;
      if (gone > 0 && !there.packs.includes(`${gone} × ${row.packed}`)) {
        there.packs.push(`${gone} × ${row.packed}`);
        there.out += gone;
      }
      orders.set(one.orderId, there);
    }
  const reached = [...orders.values()].filter((one) => one.out > 0);
  const here = [...new Map((traced?.rows ?? []).filter((row) => row.here > 0).map((row) => [row.packingId, row])).values()];
  return (
    <Screen
      title={traced ? `Recall: ${traced.lot.material}, lot ${traced.lot.code || units.onDate(traced.lot.receivedOn)}` : "Recall by a lot"}
      lead="Which batches took of it, where each jar stands, who has one."
      actions={
        traced ? (
          <button type="button" className="press" onClick={() => print()}>
            Print the list
          </button>
        ) : undefined
      }
      side={
        <>
          <Caution title="Stop first">
            What is still here is set aside before anybody is told. What a recall must say, and to whom, your local rules decide.
          </Caution>
          <Aside title="First received, first out">
            Which batch took of which lot follows from what was weighed, oldest lot first, and from every count between.
          </Aside>
        </>
      }
    >
      <FindBar what="lots by code or material" found={asked ? found.length : undefined} />
      {!traced ? (
        <ul>
          {found.map((one) => (
            <li key={one.id} className="grid items-center gap-x-4 border-b border-line py-2 sm:grid-cols-[minmax(0,1fr)_auto]">
              <span>
                <strong>{one.material}</strong>, lot {one.code || "without a code"}, received {units.onDate(one.receivedOn)}
              </span>
              <Link
                className="press"
                href={`/sell/recall?lot=${one.id}`}
                aria-label={`Recall it: ${one.material}, lot ${one.code || units.onDate(one.receivedOn)}`}
              >
                Recall it
              </Link>
            </li>
          ))}
          {found.length === 0 ? <li className="py-3 text-soft">{asked ? "No lot like that." : "Type a lot’s code, or the name of what was in it."}</li> : null}
        </ul>
      ) : traced.batches.length === 0 ? (
        <p className="text-soft">No batch took of this lot.</p>
      ) : (
        <div className="flex flex-col gap-6">
          <section aria-label="Set aside here">
            <h2 className="border-b-[3px] border-ink pb-1">1. Set aside here</h2>
            <ul>
              {traced.batches
                .filter((one) => one.fates.some((fate) => fate.fate === "rack" || fate.fate === "tester"))
                .map((one) => (
                  <li key={one.id} className="flex items-baseline gap-3 border-b border-line py-2">
                    <span aria-hidden="true" className="inline-block size-5 shrink-0 border-2 border-ink" />
                    <span className="figure text-[26px]">
                      {one.fates.reduce((sum, fate) => (fate.fate === "rack" || fate.fate === "tester" ? sum + fate.jars : sum), 0)}
                    </span>
                    <span>
                      loose of{" "}
                      <Link className="font-bold underline" href={`/records/${one.id}`}>
                        batch {one.number}
                      </Link>
                      , {one.title}
                    </span>
                  </li>
                ))}
              {traced.batches
                .filter((one) => one.pouredAt === null)
                .map((one) => (
                  <li key={one.id} className="flex items-baseline gap-3 border-b border-line py-2">
                    <span aria-hidden="true" className="inline-block size-5 shrink-0 border-2 border-ink" />
                    <span>
                      the pot of{" "}
                      <Link className="font-bold underline" href={`/bench/${one.id}`}>
                        batch {one.number}
                      </Link>
                      , {one.title}: not poured yet
                    </span>
                  </li>
                ))}
              {here.map((row) => (
                <li key={row.packingId} className="flex items-baseline gap-3 border-b border-line py-2">
                  <span aria-hidden="true" className="inline-block size-5 shrink-0 border-2 border-ink" />
                  <span className="figure text-[26px]">{row.here}</span>
                  <span>
                    packs of <strong>{row.packed}</strong>, with pieces of batch {row.number}
                  </span>
                </li>
              ))}
            </ul>
          </section>
          <section aria-label="Tell these">
            <h2 className="border-b-[3px] border-ink pb-1">2. Tell these</h2>
            {reached.length === 0 ? <p className="py-2 text-soft">Nothing of it went out with an order or to a market.</p> : null}
            <ul>
              {reached.map((one) => (
                <li key={one.id} className="flex items-baseline gap-3 border-b border-line py-2">
                  <span aria-hidden="true" className="inline-block size-5 shrink-0 border-2 border-ink" />
                  <span className="min-w-0">
                    <Link className="font-bold underline" href={`/sell/${one.id}`}>
                      {one.what === "order" ? "order" : "market day"} {one.number}, {one.name}
                    </Link>
                    {one.on ? `, ${units.onDate(one.on)}` : ""}: {one.packs.join(", ")}
                    {one.whom ? <span className="block text-[15px]">{one.whom}</span> : null}
                  </span>
                </li>
              ))}
              {traced.batches
                .filter((one) => one.whom.length > 0)
                .map((one) => (
                  <li key={one.id} className="flex items-baseline gap-3 border-b border-line py-2">
                    <span aria-hidden="true" className="inline-block size-5 shrink-0 border-2 border-ink" />
                    <span>
                      batch {one.number}, by hand: {one.whom.join(", ")}
                    </span>
                  </li>
                ))}
            </ul>
          </section>
          <section aria-label="Every batch">
            <h2 className="border-b-[3px] border-ink pb-1">3. Every jar</h2>
            <ul>
              {traced.batches.map((one) => (
                <li key={one.id} className="border-b border-line py-2">
                  <Link className="font-bold underline" href={`/records/${one.id}`}>
                    batch {one.number}
                  </Link>
                  , {one.title}:{" "}
                  {one.pouredAt === null
                    ? "not poured yet"
                    : `${one.jars} jars: ${one.fates.map((fate) => `${fate.jars} ${FATE_WORDS[fate.fate]}`).join(", ")}`}
                </li>
              ))}
            </ul>
          </section>
        </div>
      )}
    </Screen>
  );
}
