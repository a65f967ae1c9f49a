"use client";

import { bad, bottlesFor, parseVolume } from "@hearth/core";
import { useMemo } from "react";
import { amountRule, VolumeNote } from "@/forms/amount";
import { Field, type FieldRule, useFields } from "@/forms/fields";
import { useUnits } from "@/ui/units";
import { type StockedThing, useDensity } from "./stocked";

/** How many bottles of a size an amount of oil fills or needs. */
export function Bottles({ of }: { of: StockedThing }) {
  const units = useUnits();
  const density = useDensity(of);
  const rules = useMemo(
    () => ({
      need: amountRule({ name: of.name, counted: false, density: density.value }, units, "1 fl oz") as FieldRule<unknown>,
      size: {
        initial: "10 ml",
        parse: (text: string) => parseVolume(text) ?? bad("empty", "Type the bottle's volume, like 10 ml."),
      } as FieldRule<unknown>,
    }),
    [of.name, density.value, units],
  );
  const fields = useFields(rules);
  const need = fields.values.need as Parameters<typeof VolumeNote>[0]["amount"];
  const size = fields.values.size as { ml: number } | undefined;
  return (
    <form ref={fields.form} className="sheet" aria-label="Volume and bottles" onSubmit={(event) => event.preventDefault()}>
      <h2 className="mb-2">Volume and bottles</h2>
      <div className="grid grid-cols-2 gap-x-4 gap-y-1">
        <Field label="This much oil" {...fields.bind("need")} hint="A weight, or a volume like 4 fl oz." />
        <Field label="in bottles of" {...fields.bind("size")} />
        {of.density === null ? (
          <Field
            label="Density"
            name="bottle-density"
            value={density.text}
            onValue={density.setText}
            onLeave={() => undefined}
            error={density.fault}
            unit="g/ml"
            hint="From the supplier's sheet."
          />
        ) : null}
      </div>
      <VolumeNote amount={need} density={density.value} />
      {need && size && density.value !== null ? (
        <p className="mt-1" role="status">
          <span className="figure text-[34px]">{bottlesFor(need.mg, density.value, size.ml)}</span>{" "}
          {bottlesFor(need.mg, density.value, size.ml) === 1 ? "bottle" : "bottles"} of {units.n(size.ml, 1)} ml{" "}
          {bottlesFor(need.mg, density.value, size.ml) === 1 ? "holds" : "hold"} {units.about(need.mg)}, which is{" "}
          {units.n((need.mg * 1_000) / density.value, 1)} ml.
        </p>
      ) : (
        <p className="mt-1 text-soft">{density.value === null ? "Needs the oil's density." : "Type an amount and the bottle's volume."}</p>
      )}
    </form>
  );
}
