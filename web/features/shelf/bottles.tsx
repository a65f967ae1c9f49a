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
      need: amountRule({ name: of.name, counted: false, density: density.value }, units, units.say("{30 ml|1 fl oz}")) as FieldRule<unknown>,
      size: {
        initial: units.say("{10 ml|1 fl oz}"),
        parse: (text: string) => parseVolume(text) ?? bad("empty", units.say("Type the bottle's volume, like {10 ml|1 fl oz}.")),
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
        <Field label="This much oil" {...fields.bind("need")} hint={units.say("A weight, or a volume like {100 ml|4 fl oz}.")} />
        <Field label="in bottles of" {...fields.bind("size")} />
        {of.density === null ? (
          <Field
            label={units.densityName}
            name="bottle-density"
            value={density.text}
            onValue={density.setText}
            onLeave={() => undefined}
            error={density.fault}
            unit={units.densityUnit}
            hint="From the supplier's sheet."
          />
        ) : null}
      </div>
      <VolumeNote amount={need} density={density.value} />
      {need && size && density.value !== null ? (
        <p className="mt-1" role="status">
          <span className="figure text-[34px]">{bottlesFor(need.mg, density.value, size.ml)}</span>{" "}
          {bottlesFor(need.mg, density.value, size.ml) === 1 ? "bottle" : "bottles"} of {units.volume(size.ml)}{" "}
          {bottlesFor(need.mg, density.value, size.ml) === 1 ? "holds" : "hold"} {units.about(need.mg)}, which is{" "}
          {units.volume((need.mg * 1_000) / density.value)}.
        </p>
      ) : (
        <p className="mt-1 text-soft">{density.value === null ? "Needs the oil's density." : "Type an amount and the bottle's volume."}</p>
      )}
    </form>
  );
}
