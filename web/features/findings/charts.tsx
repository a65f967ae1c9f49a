"use client";

import { cellInUnits, MIN_VALUES, RUNS_RULES } from "@hearth/core";
import { scaleLinear } from "d3-scale";
import type { Charted, RunChart } from "@/server/findings/run-charts";
import type { PeriodChoice } from "@/server/http/period";
import { useRouter } from "@/ui/address";
import { Picture } from "@/ui/picture";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { useWidth } from "@/ui/size";
import { SizedSvg } from "@/ui/sized-svg";
import { useUnits } from "@/ui/units";
import { FormulaSelect } from "./formula-select";
import { PeriodPicker, periodAddress } from "./period";
import { Ways } from "./ways";

const [HEIGHT, LEFT, RIGHT, TOP, BOTTOM] = [336, 62, 92, 14, 50];

/** Single values in order of pouring, their mean and limits as lines named at their ends, the asked range shaded, what is odd marked. */
function Chart({ run, words }: { run: RunChart; words: string }) {
  const units = useUnits();
  const size = useWidth<HTMLDivElement>(860);
  const { width } = size;
  const { points, chart, range, of } = run;
  const warm = of === "pour_c" || of === "add_c";
  const shown = (value: number) => (warm ? units.t(Math.round(value * 100)) : `${units.n(value, 1)} %`);
  const all = [...points.map((point) => point.value), ...(chart ? [chart.low, chart.high] : []), ...(range ?? [])];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const room = Math.max((high - low) * 0.08, 0.2);
  const x = scaleLinear([0, points.length - 1], [LEFT, width - RIGHT]);
  const y = scaleLinear([low - room, high + room], [HEIGHT - BOTTOM, TOP]);
  const odd = new Map(chart?.signals.map((signal) => [signal.at, signal.rule]));
  const lines = chart
    ? [
        { value: chart.high, name: "upper limit" },
        { value: chart.mean, name: "mean" },
        { value: chart.low, name: "lower limit" },
      ]
    : [];
  const every = Math.max(1, Math.ceil((points.length * 92) / Math.max(1, width - LEFT - RIGHT)));
  return (
    <Picture
      name={`${words}, ${run.formula}`}
      heads={["batch", "poured", warm ? `${words}, °${units.temperature}` : `${words}, %`]}
      rows={points.map((point) => [point.number, point.at, Math.round((warm ? cellInUnits("c", point.value, units) : point.value) * 1000) / 1000])}
    >
      <SizedSvg size={size} height={HEIGHT} label={`${words} of ${points.length} batches`}>
        {range ? <rect x={LEFT} width={width - LEFT - RIGHT} y={y(range[1])} height={y(range[0]) - y(range[1])} fill="var(--color-wax)" /> : null}
        {lines.map((item) => (
          <g key={item.name}>
            <line
              x1={LEFT}
              x2={width - RIGHT}
              y1={y(item.value)}
              y2={y(item.value)}
              stroke="var(--color-ink)"
              strokeWidth={1.5}
              strokeDasharray={item.name === "mean" ? "" : "7 5"}
            />
            <text x={width - RIGHT + 6} y={y(item.value) + 5} fontSize={14} fill="var(--color-ink)">
              {item.name}
            </text>
            <text x={LEFT - 6} y={y(item.value) + 5} textAnchor="end" fontSize={13} fill="var(--color-ink)">
              {shown(item.value)}
            </text>
          </g>
        ))}
        <polyline
          points={points.map((point, index) => `${x(index).toFixed(1)},${y(point.value).toFixed(1)}`).join(" ")}
          fill="none"
          stroke="var(--color-soft)"
          strokeWidth={1.5}
        />
        {points.map((point, index) =>
          odd.has(index) ? (
            <rect
              key={point.id}
              x={x(index) - 6}
              y={y(point.value) - 6}
              width={12}
              height={12}
              fill="var(--color-hot)"
              transform={`rotate(45 ${x(index)} ${y(point.value)})`}
            />
          ) : (
            <circle key={point.id} cx={x(index)} cy={y(point.value)} r={points.length > 150 ? 2 : 4} fill="var(--color-ink)" />
          ),
        )}
        {points.map((point, index) =>
          index % every === 0 ? (
            <text key={point.id} y={HEIGHT - 26} textAnchor="middle" fontSize={13} fill="var(--color-ink)">
              <tspan x={x(index)}>{point.number}</tspan>
              <tspan x={x(index)} dy={17} fill="var(--color-soft)">
                {units.date(point.at)}
              </tspan>
            </text>
          ) : null,
        )}
      </SizedSvg>
    </Picture>
  );
}

/** Run charts of what a maker controls, batch by batch: whether it drifts, and whether it stays in its range. */
export function Charts({ run, kinds, choice }: { run: RunChart; kinds: { name: Charted; words: string }[]; choice: PeriodChoice }) {
  const router = useRouter();
  const units = useUnits();
  const words = kinds.find((kind) => kind.name === run.of)?.words ?? "";
  const go = (of: string, formula: string) => router.push(periodAddress("/findings/charts", { of, formula }, choice));
  const newest = run.chart?.signals.at(-1);
  const drifts = newest && newest.at >= run.points.length - 3;
  return (
    <PageLayout
      title="Run charts"
      lead="Batch by batch in order of pouring: is the process stable and in its range?"
      side={
        <>
          <Aside title="Limits">
            Mean and 2.66 mean moving ranges, from the batches themselves (NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2). They show what is usual
            here. The shaded range shows what is right.
          </Aside>
          <Aside title="Marked points">
            Western Electric's runs rules: {Object.values(RUNS_RULES).join("; ")}. Each is more than chance: find out what changed.
          </Aside>
        </>
      }
    >
      <Ways here="/findings/charts" />
      <PeriodPicker path="/findings/charts" asked={{ of: run.of, formula: run.formula }} choice={choice} />
      <div className="flex flex-wrap gap-3">
        <label>
          What{" "}
          <select className="entry !w-auto" value={run.of} onChange={(event) => go(event.target.value, run.formula)}>
            {kinds.map((kind) => (
              <option key={kind.name} value={kind.name}>
                {kind.words}
              </option>
            ))}
          </select>
        </label>
        <FormulaSelect label="Formula" formulas={run.formulas} value={run.formula} onChange={(formula) => go(run.of, formula)} />
      </div>
      {run.points.length === 0 ? (
        <Empty title="Nothing recorded yet">
          <p>Log the temperature before pouring and the weights of the jars: each batch adds a point.</p>
        </Empty>
      ) : (
        <div className="mt-3">
          {drifts ? (
            <p className="mb-2 border-l-[6px] border-hot bg-hot-fill px-3 py-2 font-semibold">
              ▲ Batch {run.points[newest.at]?.number}: {RUNS_RULES[newest.rule]}. Something changed: a thermometer, the room, the person, the process.
            </p>
          ) : null}
          <Chart run={run} words={words} />
          {run.chart ? null : (
            <p className="text-soft">
              {units.n(run.points.length, 0)} batches: limits need at least {MIN_VALUES}.
            </p>
          )}
          {run.chart && run.chart.signals.length > 0 ? (
            <ul className="mt-3" aria-label="Marked points">
              {run.chart.signals.slice(-12).map((signal) => (
                <li key={signal.at} className="border-b border-line py-1">
                  <strong>batch {run.points[signal.at]?.number}</strong>: {RUNS_RULES[signal.rule]}
                </li>
              ))}
            </ul>
          ) : null}
        </div>
      )}
    </PageLayout>
  );
}
