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
  const unwicked = picked.filter((item) => !item.chosenWicks && item.container === "vessel" && item.use !== "melts");
  return (
    <>
      {noScale ? (
        <Warn>
          There is no scale on the shelf. <Link href="/shelf#instrument">Add yours</Link>, with what it reads to: amounts are rounded to it.
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
          {item.name} is sold by weight but filled to {units.g(fillAt(item.key))}, below its stated {units.g(item.statedFillMg)}. The buyer would get too
          little.
        </Warn>
      ))}
      {shortage.map((item) => (
        <Warn key={item.materialId}>
          {item.name}: {item.counted ? `${item.amount} needed, ${item.there} in stock` : `${units.g(item.amount)} needed, ${units.g(item.there)} in stock`}.
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
                {below.name} comes to {units.about(Math.round(below.exactMg))}, less than half of what its scale reads to, so it cannot be weighed. Use a finer
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
                Rounded to {units.resolution({ resolutionUg: warning.finer.resolutionUg })}, {units.g(warning.finer.waxMg)} wax and{" "}
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
        <Aside title="Half fills">Half fills show early how the lower half burns. They never count as a full test.</Aside>
      ) : null}
      {unwicked.length > 0 ? (
        <Aside title="No wick">
          {unwicked.map((item) => item.name).join(", ")}: no wick is chosen. Melts need none; for a candle choose one, so that it is in stock and cost.
        </Aside>
      ) : null}
      {warnings.some((warning) => warning.code === "no-spare") ? (
        <Aside title="Extra">{units.say(warnings.find((warning) => warning.code === "no-spare")?.message ?? "")}</Aside>
      ) : null}
    </>
  );
}

/** What to mind before the wax of a plan is melted. */
export const BeforeMelting = () => (
  <>
    <Aside title="By weight">Everything is by weight. Do not measure oil by volume.</Aside>
    <Caution title="Before you melt">
      Wipe vessels with alcohol and let it dry completely, because it burns. Throw cracked jars away. Keep an extinguisher for grease fires at hand.
    </Caution>
  </>
);
