"use client";

import type { ChosenProduct, GelFault, WeighOutWarning } from "@hearth/core";
import { Link } from "@/ui/address";
import { Aside, Caution, Warn } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import type { shortagesOf } from "./model";

/** What is to be looked at before a plan is begun: what is missing, over a limit, or not as it should be. */
export function PlanMargin({
  noScale,
  fault,
  gel,
  picked,
  fillAt,
  shortage,
  warnings,
}: {
  noScale: boolean;
  /** Why nothing can be worked out. */
  fault: string | null;
  /** What stands against a gel candle. */
  gel: GelFault[];
  picked: (ChosenProduct & { state: string; key: string })[];
  fillAt: (id: string) => number;
  shortage: ReturnType<typeof shortagesOf>;
  warnings: WeighOutWarning[];
}) {
  const units = useUnits();
  const short = picked.filter((item) => item.soldByWeight && !item.part && fillAt(item.key) < item.statedFillMg);
  const testCandles = picked.filter((item) => item.state === "test jar");
  const unwicked = picked.filter((item) => !item.chosenWicks && item.container === "vessel");
  return (
    <>
      {noScale ? (
        <Warn>
          There is no scale on the shelf. <Link href="/shelf#instrument">Put yours there</Link>, with its step: every amount is rounded to what it can show.
        </Warn>
      ) : fault ? (
        <Warn>{fault}</Warn>
      ) : null}
      {gel.map((gelFault) =>
        gelFault.weight === "stop" ? (
          <Caution key={gelFault.message} title="Not in gel">
            {units.say(gelFault.message)}
          </Caution>
        ) : (
          <Warn key={gelFault.message}>{units.say(gelFault.message)}</Warn>
        ),
      )}
      {short.map((item) => (
        <Warn key={item.id}>
          {item.name} is sold by weight but filled to {units.g(fillAt(item.key))}, below its stated {units.g(item.statedFillMg)}. A buyer would be
          short-changed.
        </Warn>
      ))}
      {shortage.map((item) => (
        <Warn key={item.materialId}>
          {item.name}: {item.counted ? `${item.amount} are needed, ${item.there} there` : `${units.g(item.amount)} is needed, ${units.g(item.there)} there`}.
        </Warn>
      ))}
      {warnings
        .filter((warning) => warning.code !== "no-spare" && warning.code !== "finer-scale" && !warning.below)
        .map((warning) => (
          <Warn key={warning.code}>{units.say(warning.message)}</Warn>
        ))}
      {warnings.flatMap(({ below }) =>
        below
          ? [
              <Warn key={`${below.kind} ${below.name}`}>
                {below.name} comes to {units.about(Math.round(below.exactMg))}, less than half a mark of its scale: nothing of it would be weighed. Use a finer
                scale, make a larger batch
                {below.premix
                  ? `, or premix it: ${units.g(below.premix.partMg)} in ${units.g(below.premix.inMg)} of ${below.kind === "fragrance" ? "the rest of the fragrance" : "wax"}, and weigh ${units.g(below.premix.takeMg)} of that`
                  : ""}
                .
              </Warn>,
            ]
          : [],
      )}
      {warnings.flatMap((warning) =>
        warning.finer
          ? [
              <Aside key={warning.message} title="A finer scale for the oil">
                In steps of {units.resolution({ resolutionUg: warning.finer.resolutionUg })}, {units.g(warning.finer.waxMg)} wax and{" "}
                {units.onScale(warning.finer.fragranceMg, { resolutionUg: warning.finer.resolutionUg })} fragrance would hold{" "}
                {units.n(warning.finer.loadPercentOfWax, 2, true)} % of the wax.
              </Aside>,
            ]
          : [],
      )}
      {testCandles.length > 0 ? (
        <Caution title="Test candles">{testCandles.map((testCandle) => testCandle.name).join(", ")}: for your own burns only, never for sale.</Caution>
      ) : null}
      {picked.some((item) => item.part?.kind === "half") ? (
        <Aside title="Half fills">They show how the lower half burns, early. A half fill never counts as a full test.</Aside>
      ) : null}
      {unwicked.length > 0 ? (
        <Aside title="No wick">
          {unwicked.map((item) => item.name).join(", ")}: no wick is chosen. Melts need none; for a candle choose one, so that it is drawn and costed.
        </Aside>
      ) : null}
      {warnings.some((warning) => warning.code === "no-spare") ? (
        <Aside title="Spare">{units.say(warnings.find((warning) => warning.code === "no-spare")?.message ?? "")}</Aside>
      ) : null}
      <Aside title="Weigh, never measure">Everything here is by weight. A fluid ounce of oil is not an ounce.</Aside>
      <Caution title="Before you melt">
        Wipe vessels with alcohol and let it dry completely: it burns. A cracked jar is thrown away. Grease-fire extinguisher at hand.
      </Caution>
    </>
  );
}
