"use client";

import type { ForecastView, TypicalCooling } from "@hearth/core";
import { useMemo } from "react";
import { FindBar, NothingFound, OlderNewer } from "@/catalogue/find-bar";
import { marksOf } from "@/log/marks";
import { BatchRow } from "@/log/row";
import type { ReadInstrument, Running } from "@/server/batches/batches";
import { Link } from "@/ui/address";
import { HeatLine } from "@/ui/heat-line";
import { Aside, Empty, HotWaxCaution, PageLayout } from "@/ui/side-notes";
import { useNow } from "@/ui/units";
import { Ahead, CallSound } from "./foreseen";
import { bySoonest } from "./order";
import { benchTargets } from "./pot-targets";
import { useForecastViews } from "./use-forecast-view";

interface PotsProps {
  batches: Running[];
  instruments: ReadInstrument[];
  usual: TypicalCooling | null;
  /** What was forecast of the pots when the page was made, by their ids. */
  forecasts: Readonly<Record<string, ForecastView | null>>;
  older: string | null;
  newer: string | null;
  narrowed: boolean;
}

/** The pot that needs hands soonest, as large as the screen allows. */
function Soonest({ pot, instruments, forecastView, now }: { pot: Running; instruments: ReadInstrument[]; forecastView: ForecastView | null; now: string }) {
  return (
    <section className="sheet mb-5" aria-label="Next up">
      <div className="flex flex-wrap items-start gap-x-5 gap-y-2">
        <span className="figure text-[64px] leading-[0.9]">{pot.number}</span>
        <div className="min-w-0 flex-1 basis-[180px]">
          <Link href={`/bench/${pot.id}`} className="text-[24px] leading-tight font-bold">
            {pot.title}
          </Link>
          <div className="text-[20px] font-semibold">{pot.next ? `next: ${pot.next.name}` : "poured"}</div>
          <div className="text-soft">{pot.products.map((product) => `${product.count} × ${product.name}`).join(", ")}</div>
        </div>
        <Link href={`/bench/${pot.id}`} className="action-button !min-h-[64px] max-sm:w-full" data-next-step>
          Go to the pot
        </Link>
      </div>
      {forecastView ? (
        <div className="mt-2">
          <Ahead forecastView={forecastView} size="text-[64px]" />
        </div>
      ) : null}
      <div className="mt-3">
        <HeatLine
          bands={pot.bands}
          ceiling={pot.ceiling}
          marks={marksOf(pot.thumb, instruments)}
          now={now}
          ahead={forecastView}
          height={200}
          label={`Heat line of batch ${pot.number}`}
        />
      </div>
    </section>
  );
}

/** The pots that run, the one that needs hands soonest first and largest. */
export function Pots({ batches, instruments, usual: typical, forecasts, older, newer, narrowed }: PotsProps) {
  const now = useNow(10_000);
  const [running, rehearsed] = [batches.filter((batch) => !batch.rehearsal), batches.filter((batch) => batch.rehearsal)];
  const forecastViews = useForecastViews(
    useMemo(() => benchTargets(batches, typical), [batches, typical]),
    forecasts,
  );
  const [first, ...others] = bySoonest(running, forecastViews, now);
  return (
    <PageLayout
      title="Bench"
      lead="Pots in progress."
      actions={
        <Link className="press" href="/bench/molds">
          Molds by the clock
        </Link>
      }
      side={
        <>
          <HotWaxCaution />
          <Aside title="Two pots at once">Read each pot before it reaches its range: it cools or overheats while you pour the other.</Aside>
        </>
      }
    >
      {batches.length > 3 || older || newer || narrowed ? <FindBar what="the pots" found={older || newer ? undefined : batches.length} /> : null}
      {batches.length === 0 && narrowed ? (
        <NothingFound what="pot" />
      ) : batches.length === 0 ? (
        <Empty
          title="No pot in progress"
          action={
            <Link className="action-button" href="/plan" data-next-step>
              Plan a batch
            </Link>
          }
        >
          <p>Each pot in progress shows its next step and its target.</p>
        </Empty>
      ) : (
        <>
          {batches.map((batch) => {
            const forecastView = forecastViews[batch.id];
            return forecastView ? <CallSound key={batch.id} forecastView={forecastView} /> : null;
          })}
          {first ? <Soonest pot={first} instruments={instruments} forecastView={forecastViews[first.id] ?? null} now={now} /> : null}
          <ul>
            {[...others, ...rehearsed].map((running) => (
              <BatchRow
                key={running.id}
                batch={running.rehearsal ? { ...running, title: `Practice: ${running.title}` } : running}
                href={`/bench/${running.id}`}
                instruments={instruments}
                what={running.next ? `next: ${running.next.name}` : "poured"}
                action={running.rehearsal ? "Resume" : "Go to the pot"}
              >
                {forecastViews[running.id] ? <Ahead forecastView={forecastViews[running.id] as ForecastView} size="text-[26px]" /> : null}
              </BatchRow>
            ))}
          </ul>
        </>
      )}
      <OlderNewer older={older} newer={newer} what="pots" />
    </PageLayout>
  );
}
