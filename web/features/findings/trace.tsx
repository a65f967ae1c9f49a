"use client";

import { addDays, isCounted, JAR_STATUS_WORDS, type StockedKind } from "@hearth/core";
import { useState } from "react";
import { ShowAll } from "@/catalogue/find-bar";
import { noteAddress } from "@/catalogue/note-address";
import { useWorkshop } from "@/log/workshop";
import type { TakenByBatch } from "@/server/inventory/shelf";
import type { FoundLot, FoundRecord, TracedBatch } from "@/server/inventory/trace";
import { Link, useRouter } from "@/ui/address";
import { Aside, PageLayout } from "@/ui/side-notes";
import { useNow, useUnits } from "@/ui/units";
import { Ways } from "./ways";

/** A month as it may be searched for. */
const MONTH = "March 2021";

interface TraceProps {
  q: string;
  found: FoundRecord | null;
  /** Lots of the one batch that was found. */
  taken: (TakenByBatch[number] & { name: string })[];
  /** A lot with the first of its batches, and how many there are. */
  lot: { lot: FoundLot; batches: TracedBatch[]; total: number } | null;
}

const amountOf = (units: ReturnType<typeof useUnits>, kind: string, amount: number) =>
  isCounted(kind as StockedKind) ? `${units.n(amount, 0)} pieces` : units.bulk(amount);

/** Batches with what became of their jars, and to whom they went. */
function Batches({ list, kind }: { list: readonly TracedBatch[]; kind?: string }) {
  const units = useUnits();
  return (
    <ul>
      {list.map((batch) => (
        <li key={batch.id} className="grid gap-x-4 border-b border-line py-2 sm:grid-cols-[60px_minmax(0,1fr)_minmax(0,1fr)]">
          <span className="figure text-[24px] leading-none">{batch.number}</span>
          <div>
            <Link href={`/records/${batch.id}`} className="font-bold">
              {batch.title}
            </Link>
            <div className="text-[15px] text-soft">
              {batch.pouredAt ? `poured ${units.dayClock(batch.pouredAt)}` : "not poured"}
              {batch.amount !== undefined && kind ? `; took ${amountOf(units, kind, batch.amount)}` : ""}
            </div>
          </div>
          <div>
            {batch.pouredAt ? (
              <>
                {batch.jars} jars: {batch.jarStatuses.map((each) => `${each.jars} ${JAR_STATUS_WORDS[each.status]}`).join(", ")}
                {batch.whom.length > 0 ? <div className="text-[15px]">to {batch.whom.join("; ")}</div> : null}
              </>
            ) : null}
          </div>
        </li>
      ))}
    </ul>
  );
}

type Found = NonNullable<TraceProps["found"]>;

/** The field in which one says what one looks for. */
function SearchField({ q }: { q: string }) {
  const router = useRouter();
  const [text, setText] = useState(q);
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        router.push(`/findings/trace?q=${encodeURIComponent(text.trim())}`);
      }}
    >
      <label className="min-w-[220px] flex-1 font-semibold">
        What to search for
        <input className="entry mt-1" type="search" maxLength={100} value={text} onChange={(event) => setText(event.target.value)} />
      </label>
      <button type="submit" className="action-button">
        Search
      </button>
    </form>
  );
}

/** Every batch that drew on a lot, and what became of its jars. */
function FromLot({ lot }: { lot: NonNullable<TraceProps["lot"]> }) {
  const units = useUnits();
  const { workshopId } = useWorkshop();
  return (
    <section aria-label="From this lot" className="mt-5">
      <h2>
        {lot.lot.material}, lot {lot.lot.code || "without a code"}
      </h2>
      <p className="text-soft">
        received {units.onDate(lot.lot.receivedOn)}, {amountOf(units, lot.lot.kind, lot.lot.amount)}
      </p>
      <p className="font-semibold">{lot.total === 0 ? "No batch used it." : `${lot.total} ${lot.total === 1 ? "batch" : "batches"}, the nearest first`}</p>
      <Batches list={lot.batches} kind={lot.lot.kind} />
      <ShowAll left={lot.total - lot.batches.length} href={`/findings/trace?lot=${lot.lot.id}&show=${lot.total}`} />
      {lot.total > 0 ? (
        <a className="press mt-3" href={`/api/workshops/${workshopId}/recall?lot=${lot.lot.id}`} download>
          Download CSV
        </a>
      ) : null}
    </section>
  );
}

/** The batches that were found; of a single one, the lots that it was made from. */
function BatchesFound({ found, taken, all }: { found: Found; taken: TraceProps["taken"]; all: string }) {
  return (
    <section aria-label="Batches found" className="mt-5">
      <h2>{found.jar ? `Jar ${found.jar.number} of batch ${found.batches[0]?.number}: ${found.jar.product}` : `Batches: ${found.totals.batches}`}</h2>
      <Batches list={found.batches} />
      <ShowAll left={found.totals.batches - found.batches.length} href={all} />
      {taken.length > 0 ? (
        <>
          <h3 className="mt-3">Made from these lots</h3>
          <ul>
            {taken.flatMap((use) =>
              use.taken.map((item) => (
                <li key={`${use.materialId}${item.lotId}`} className="border-b border-line py-1">
                  {use.name}:{" "}
                  {item.lotId ? (
                    <Link className="underline" href={`/findings/trace?lot=${item.lotId}`}>
                      lot {item.code || "without a code"}
                    </Link>
                  ) : (
                    <span className="text-soft">unknown lot</span>
                  )}
                </li>
              )),
            )}
          </ul>
        </>
      ) : null}
    </section>
  );
}

/** The lots that were found, each with the way to its jars. */
function LotsFound({ found: { lots, totals }, all }: { found: Found; all: string }) {
  const units = useUnits();
  return (
    <section aria-label="Lots found" className="mt-5">
      <h2>Lots: {totals.lots}</h2>
      <ul>
        {lots.map((lot) => (
          <li key={lot.id} className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-2">
            <strong>{lot.material}</strong>
            <span>lot {lot.code || "without a code"}</span>
            <span className="text-soft">received {units.onDate(lot.receivedOn)}</span>
            <Link className="ml-auto underline" href={`/findings/trace?lot=${lot.id}`}>
              Every jar of lot {lot.code || "without a code"}
            </Link>
          </li>
        ))}
      </ul>
      <ShowAll left={totals.lots - lots.length} href={all} />
    </section>
  );
}

/** The notes that were found, each with the way to what it is about. */
function NotesFound({ found: { notes, totals }, all }: { found: Found; all: string }) {
  const units = useUnits();
  return (
    <section aria-label="Notes found" className="mt-5">
      <h2>Notes: {totals.notes}</h2>
      <ul>
        {notes.map((note) => (
          <li key={note.id} className="border-b border-line py-2">
            <Link className="underline" href={noteAddress(note)}>
              {note.of}
            </Link>
            , {units.dayClock(note.at)}: {note.text}
          </li>
        ))}
      </ul>
      <ShowAll left={totals.notes - notes.length} href={all} />
    </section>
  );
}

/** From a lot to every jar and where it went, and from a jar to its lots; and a search of the whole record. */
export function Trace({ q, found, taken, lot }: TraceProps) {
  const all = `/findings/trace?q=${encodeURIComponent(q)}&show=${found ? Math.max(1, ...Object.values(found.totals)) : 1}`;
  const units = useUnits();
  const now = useNow(60_000);
  const nothing = found && found.batches.length + found.lots.length + found.notes.length === 0;
  return (
    <PageLayout
      title="Search and trace"
      lead="From a lot to every jar, and back. Search for a batch, jar, lot, day or words of a note."
      side={
        <>
          <Aside title="How lots are traced">
            First received, first used, with each stock count. If two lots were open at once it can be the other: when it matters, warn the buyers of both.
          </Aside>
          <Aside title="Search tips">
            41 for a batch, 41-3 for its third jar, a lot's code, {units.onDate(addDays(units.isoDay(now), -30))} for a day, {MONTH} for a month, a material,
            words of a note.
          </Aside>
        </>
      }
    >
      <Ways here="/findings/trace" />
      <SearchField q={q} />
      {lot ? <FromLot lot={lot} /> : null}
      {nothing ? <p className="mt-5 text-[19px] font-semibold">Nothing in the record is called “{q}”.</p> : null}
      {found && found.batches.length > 0 ? <BatchesFound found={found} taken={taken} all={all} /> : null}
      {found && found.lots.length > 0 ? <LotsFound found={found} all={all} /> : null}
      {found && found.notes.length > 0 ? <NotesFound found={found} all={all} /> : null}
    </PageLayout>
  );
}
