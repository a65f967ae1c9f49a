"use client";

import Link from "next/link";
import { FindBar, NothingFound, Older } from "@/catalogue/find-bar";
import { BatchRow } from "@/log/row";
import type { Listed, ReadInstrument } from "@/server/batches";
import { Aside, Caution, Empty, Screen } from "@/ui/margin";

/** The pots that run. */
export function Pots({ batches, instruments, more, narrowed }: { batches: Listed[]; instruments: ReadInstrument[]; more: string | null; narrowed: boolean }) {
  return (
    <Screen
      title="Bench"
      lead="Pots that are being weighed, heated and poured."
      side={
        <>
          <Caution title="Hot wax">Never leave it. No water near it. Smother a wax fire; never water.</Caution>
          <Aside title="Two pots at once">Read each one before its range, not after: a pot that waits cools or overheats while you pour the other.</Aside>
        </>
      }
    >
      {batches.length > 3 || more || narrowed ? <FindBar what="the pots" found={more ? undefined : batches.length} /> : null}
      {batches.length === 0 && narrowed ? (
        <NothingFound what="pot" />
      ) : batches.length === 0 ? (
        <Empty
          title="No pot is running"
          action={
            <Link className="act" href="/plan" data-next-step>
              Plan a batch
            </Link>
          }
        >
          <p>Here each running pot shows its next step and takes one number at a time, with what it should be beside it.</p>
        </Empty>
      ) : (
        <ul>
          {batches.map((one, index) => (
            <BatchRow
              key={one.id}
              batch={one}
              href={`/bench/${one.id}`}
              instruments={instruments}
              first={index === 0}
              what={one.next ? `next: ${one.next.name}` : "poured"}
              action="Go to the pot"
            />
          ))}
        </ul>
      )}
      <Older after={more}>Older pots</Older>
    </Screen>
  );
}
