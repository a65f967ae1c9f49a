import { z } from "zod";
import { temperatureRange } from "../heat/schema";
import { isoDay } from "../units/day";
import { MAX_DENSITY, MIN_DENSITY } from "../units/density";
import { SECONDS } from "../units/duration";
import { exactResolution, LARGEST_MASS_MG } from "../units/mass";
import { lengthInBoth } from "../units/measured-text";
import { COLDEST } from "../units/temperature";
import { type ShelfField, WAX_FAMILIES } from "./fields";
import { SHELF_FIELDS, type ShelfKind } from "./kinds";

/** Returns the schema of a stored value. */
function fieldSchema(field: ShelfField): z.ZodType {
  const { type } = field;
  const whole = z.number().int();
  const bare = ((): z.ZodType => {
    switch (type.is) {
      case "name":
        return z.string().trim().min(1, "Enter a name.").max(120);
      case "words":
        return z.string().max(2_000);
      case "choice":
        return z.enum(type.of.map((item) => item.value) as [string, ...string[]], { error: `Choose one of ${type.of.map((item) => item.value).join(", ")}.` });
      case "yes":
        return z.boolean();
      case "mass":
        return whole.min(type.least).max(type.most);
      case "percent":
        return whole.min(type.least * 10_000).max(type.most * 10_000);
      case "temperature":
        return whole.min(COLDEST).max(type.most);
      case "difference":
        return whole.min(-2_000).max(2_000);
      case "range":
        return temperatureRange;
      case "duration":
        return whole.min(0).max(400 * SECONDS.d);
      case "density":
        return whole.min(MIN_DENSITY).max(MAX_DENSITY);
      case "length":
        return whole
          .min(type.least * 1_000, `At least ${lengthInBoth(type.least * 1_000)}.`)
          .max(type.most * 1_000, `At most ${lengthInBoth(type.most * 1_000)}.`);
      case "families":
        return z.array(z.enum(WAX_FAMILIES)).max(WAX_FAMILIES.length);
      case "step":
        // A step in ounces is no whole number of micrograms; one that was cut to them is made exact again.
        return z.number().positive().max(LARGEST_MASS_MG).overwrite(exactResolution);
      case "count":
        return whole.min(type.least).max(type.most);
      case "ref":
        return z.uuid();
      case "money":
        return whole.min(0).max(1e12);
      case "volume":
        return whole.min(1_000).max(type.most);
      case "day":
        return isoDay();
      case "amount":
        return whole.min(1).max(LARGEST_MASS_MG);
      case "blend":
        return z
          .array(z.object({ id: z.uuid(), share: z.number().positive().max(1e6) }))
          .min(2)
          .max(8);
    }
  })();
  return (field.optional || field.derived) && type.is !== "words" ? bare.nullable().default(null) : type.is === "words" ? bare.default("") : bare;
}

/** What a row holds where a program, or a file, says nothing of a field that must have a value. */
const FALLBACK: Record<string, unknown> = {
  state: "for sale",
  shape: "straight",
  headspaceUm: 10_000,
  waterTo: "line",
  use: "candle",
  cavities: 1,
  testJars: 0,
  wicks: 1,
  soldByWeight: false,
  sizeEstimated: false,
};

/** Returns the schema of one kind's values. */
export const shelfValues = (kind: ShelfKind): z.ZodType<Record<string, unknown>> =>
  z.object(
    Object.fromEntries(
      SHELF_FIELDS[kind].map((shelfField) => [
        shelfField.key,
        shelfField.key in FALLBACK ? fieldSchema(shelfField).default(FALLBACK[shelfField.key] as never) : fieldSchema(shelfField),
      ]),
    ),
  );
