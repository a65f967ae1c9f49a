"use client";

import Link from "next/link";
import { Aside, Empty, Older, Screen } from "@/ui/margin";
import { useUnits } from "@/ui/units";
import type { Listed, ReadInstrument } from "../batch/lists";
import { BatchRow } from "../batch/row";

/** The closed records. */
export function Records({ batches, instruments, more }: { batches: Listed[]; instruments: ReadInstrument[]; more: string | null }) {
  const units = useUnits();
  return (
    <Screen
      title="Records"
      lead="Closed batches, kept whole."
      actions={
        <Link className="press" href="/records/import">
          Read a record in
        </Link>
      }
      side={<Aside title="Why keep them">When a candle disappoints, the answer is in what was different from the batches that were fine.</Aside>}
    >
      {batches.length === 0 ? (
        <Empty
          title="No record closed yet"
          action={
            <Link className="press" href="/rack">
              Go to the rack
            </Link>
          }
        >
          <p>
            When a batch is looked over and you are done with it, close its record. It then stands here with its heat line, its amounts and its flaws. Open a
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
              what={`${one.state.flaws.length === 0 ? "no flaws" : one.state.flaws.length === 1 ? "1 flaw" : `${one.state.flaws.length} flaws`}${one.state.closed?.missing.length ? `, closed without ${one.state.closed.missing.join(", ")}` : ""}`}
              action="Read it"
            >
              <div className="text-[15px] text-soft">closed {one.state.closed ? units.day(one.state.closed.at) : ""}</div>
            </BatchRow>
          ))}
        </ul>
      )}
      <Older path="/records" after={more}>
        Older records
      </Older>
    </Screen>
  );
}
