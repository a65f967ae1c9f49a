"use client";

import { leftoversProgramme, restMakes, weightFills } from "@hearth/core";
import { useEffect, useMemo } from "react";
import { useUnits } from "@/ui/units";
import { notice, press } from "@/ui/variants";
import { useSolver } from "./use-solver";

interface Piece {
  key: string;
  name: string;
  /** What one takes, filled whole. */
  fillMg: number;
}

/** What a weight of wax fills: how full, what is short or left, which counts use it best, and what the rest makes. */
export function FromWeight({
  totalMg,
  weightMg,
  picked,
  others,
  onCounts,
  onWeight,
}: {
  totalMg: number;
  /** The weight that was typed: of the wax or of the total. */
  weightMg: number;
  picked: (Piece & { count: number })[];
  /** What else could be filled. */
  others: Piece[];
  onCounts: (counts: Record<string, number>) => void;
  onWeight: (mg: number) => void;
}) {
  const units = useUnits();
  const solver = useSolver();
  const asked = picked.map((item) => `${item.key}:${item.fillMg}`).join();
  const { stop } = solver;
  useEffect(() => stop(), [asked, totalMg, stop]);
  const out = useMemo(() => weightFills(totalMg, picked), [totalMg, picked]);
  const named = picked.map((item) => `${item.count} × ${item.name}`).join(", ");
  const madeOf = (restMg: number) => {
    const made = restMakes(restMg, [...picked, ...others]);
    return made ? `${made.count} × ${made.piece.name}${made.leftMg > 0 ? `, ${units.about(made.leftMg)} left` : ""}` : null;
  };
  const findMix = () =>
    solver.ask(
      leftoversProgramme(
        picked.map((item) => ({ name: item.name, uses: [item.fillMg], worth: 0, least: 0, most: null })),
        [{ name: "wax and oil", have: totalMg, leftover: true }],
        "use",
      ),
    );
  const mix = solver.state.is === "found" ? solver.state.mixture : null;
  const rest = out.restMg > 0 ? madeOf(out.restMg) : null;
  return (
    <div role="status" className={out.shortMg > 0 ? notice({ className: "mt-3" }) : "mt-3 bg-paper px-3 py-2"}>
      {out.shortMg > 0 ? (
        <p>
          ▲ {units.about(totalMg)} fills {named} to <span className="figure text-[22px]">{units.n(out.ratio * 100, 1)} %</span>: {units.about(out.shortMg)}{" "}
          short.
        </p>
      ) : out.restMg > 0 ? (
        <p>
          {units.about(totalMg)} fills {named} and leaves {units.about(out.restMg)}
          {rest ? `: enough for ${rest}` : ", too little for another"}.
        </p>
      ) : (
        <p>
          ✓ {units.about(totalMg)} fills {named}.
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        {out.shortMg > 0 && out.whole !== null && out.whole > 0 ? (
          <button type="button" className={press({ size: "small" })} onClick={() => onCounts({ [picked[0]?.key ?? ""]: out.whole as number })}>
            Fill {out.whole}
          </button>
        ) : null}
        {out.shortMg > 0 ? (
          <button type="button" className={press({ size: "small" })} onClick={() => onWeight(Math.ceil(weightMg / out.ratio))}>
            Make {units.about(out.neededMg)}
          </button>
        ) : null}
        {picked.length > 1 && (out.shortMg > 0 || out.restMg > 0) ? (
          <button type="button" className={press({ size: "small" })} disabled={solver.state.is === "looking"} onClick={findMix}>
            {solver.state.is === "looking" ? "Searching for the best mix" : "Find the best mix"}
          </button>
        ) : null}
      </div>
      {solver.state.is === "failed" ? <p className="mt-1 font-semibold text-hot">▲ {solver.state.message}</p> : null}
      {mix ? (
        <p className="mt-2">
          {picked
            .map((item, index) => ({ ...item, n: mix.counts[index] ?? 0 }))
            .filter((item) => item.n > 0)
            .map((item) => `${item.n} × ${item.name}`)
            .join(", ")}{" "}
          {(mix.left[0] ?? 0) > 0
            ? `leaves ${units.about(mix.left[0] ?? 0)}${madeOf(mix.left[0] ?? 0) ? `: enough for ${madeOf(mix.left[0] ?? 0)}` : ""}`
            : "uses all of it"}
          . {mix.proved ? "No mix of these leaves less." : ""}{" "}
          <button
            type="button"
            className={press({ size: "small" })}
            onClick={() => onCounts(Object.fromEntries(picked.map((item, index) => [item.key, mix.counts[index] ?? 0])))}
          >
            Use these counts
          </button>
        </p>
      ) : null}
    </div>
  );
}
