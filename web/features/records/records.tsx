"use client";

import { countOf } from "@hearth/core";
import { FindBar, type LongListProps, NothingFound, OlderNewer } from "@/catalogue/find-bar";
import { BatchRow } from "@/log/row";
import type { Listed, ReadInstrument } from "@/server/batches/batches";
import { Link } from "@/ui/address";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";

/** The list of closed batches. */
export function Records({ batches, instruments, older, newer, narrowed, filters }: LongListProps & { batches: Listed[]; instruments: ReadInstrument[] }) {
  const units = useUnits();
  return (
    <PageLayout
      title="Records"
      lead="Closed batches."
      actions={
        <>
          <Link className="press" href="/plan/past">
            Enter a past batch
          </Link>
          <Link className="press" href="/records/notebook">
            Import a notebook
          </Link>
          <Link className="press" href="/records/import">
            Import a record
          </Link>
          <Link className="press" href="/records/year">
            The year
          </Link>
          <Link className="press" href="/records/notes">
            Notes
          </Link>
        </>
      }
      side={<Aside title="Why keep them">When a candle disappoints, compare it with the batches that were fine.</Aside>}
    >
      {batches.length > 0 || narrowed ? (
        <FindBar
          what="the records"
          {...filters}
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
          found={older || newer ? undefined : batches.length}
        />
      ) : null}
      {batches.length === 0 && narrowed ? (
        <NothingFound what="record" />
      ) : batches.length === 0 ? (
        <Empty
          title="No record closed yet"
          action={
            <>
              <Link className="press" href="/rack">
                Go to the rack
              </Link>
              <Link className="press" href="/records/notebook">
                Import a notebook
              </Link>
            </>
          }
        >
          <p>
            Close a batch's record when it is inspected and finished. It is then listed here. Batches that you wrote down before come in from a spreadsheet.
          </p>
        </Empty>
      ) : (
        <ul>
          {batches.map((batch, index) => (
            <BatchRow
              key={batch.id}
              batch={batch}
              href={`/records/${batch.id}`}
              instruments={instruments}
              first={index === 0}
              what={
                batch.abandoned
                  ? `abandoned${batch.abandoned.why ? `: ${batch.abandoned.why}` : ""}; the wax was ${batch.abandoned.wax}`
                  : batch.fromNotes
                    ? `from notes, ${batch.lookedAt ? countOf(batch.flaws, "flaw", "flaws") : "not inspected"}`
                    : `${batch.flaws === 0 ? "no flaws" : batch.flaws === 1 ? "1 flaw" : `${batch.flaws} flaws`}${batch.closed?.missing.length ? `, closed without ${batch.closed.missing.join(", ")}` : ""}`
              }
              action="View record"
            >
              <div className="text-[15px] text-soft">
                {batch.closed ? `closed ${units.day(batch.closed.at)}` : batch.abandoned ? `abandoned ${units.day(batch.abandoned.at)}` : ""}
              </div>
            </BatchRow>
          ))}
        </ul>
      )}
      <OlderNewer older={older} newer={newer} what="records" />
    </PageLayout>
  );
}
