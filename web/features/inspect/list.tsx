"use client";

import { FindBar, NothingFound, OlderNewer } from "@/catalogue/find-bar";
import { BatchRow } from "@/log/row";
import type { Listed, ReadInstrument } from "@/server/batches/batches";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { useNow } from "@/ui/units";

interface InspectionListProps {
  due: Listed[];
  batches: Listed[];
  instruments: ReadInstrument[];
  older: string | null;
  newer: string | null;
  narrowed: boolean;
}

/** The batches that can be inspected: those that are due first, however old. */
export function InspectionList({ due, batches, instruments, older, newer, narrowed }: InspectionListProps) {
  const now = useNow(30_000);
  const rest = batches.filter((batch) => !due.some((other) => other.id === batch.id));
  return (
    <PageLayout
      title="Inspect"
      lead="Inspect set candles against the light before they cure."
      side={<Aside title="Why every batch">The same flaw has several causes. The record shows what was different from batches that were fine.</Aside>}
    >
      {batches.length + due.length > 0 || narrowed ? <FindBar what="what has set" found={older || newer ? undefined : batches.length} /> : null}
      {batches.length + due.length === 0 && narrowed ? (
        <NothingFound what="batch" />
      ) : batches.length + due.length === 0 ? (
        <Empty title="Nothing to inspect yet">
          <p>When a poured batch has set, inspect it here: which flaws, where, how large, on how many jars.</p>
        </Empty>
      ) : (
        <ul>
          {[...due, ...rest].map((item, index) => (
            <BatchRow
              key={item.id}
              batch={item}
              href={`/inspect/${item.id}`}
              instruments={instruments}
              first={index === 0 && due.length > 0}
              what={
                item.lookedAt
                  ? `inspected, ${item.flaws} ${item.flaws === 1 ? "flaw" : "flaws"}`
                  : item.times && Date.parse(item.times.setAt) > Date.parse(now)
                    ? "still setting"
                    : "to be inspected"
              }
              action={item.lookedAt ? "Inspect again" : "Inspect batch"}
            />
          ))}
        </ul>
      )}
      <OlderNewer older={older} newer={newer} what="batches" />
    </PageLayout>
  );
}
