import { z } from "zod";
import { casNumber, ecNumber } from "./numbers";
import { classNamed, digits, HAZARD_CLASSES } from "./rules";

const percent = z.number().min(0, "At least 0 %.").max(100, "At most 100 %.");
const hazardClass = z.string().transform((text, context) => {
  const known = classNamed(text);
  if (known) return known;
  context.addIssue({ code: "custom", message: `“${text}” is not a known class. One of: ${HAZARD_CLASSES.join(", ")}.` });
  return z.NEVER;
});
const mFactor = z.number().min(1).max(1_000_000).nullish();
const estimate = z.number().positive().max(100_000).nullish();

const ingredient = z.object({
  name: z.string().trim().min(1, "Name the ingredient.").max(200),
  cas: casNumber.nullish().describe("ingredients of one number are one substance, as are those of one name whatever its case"),
  ec: ecNumber.nullish(),
  percent: percent.describe("of the part"),
  classes: z.array(hazardClass).max(40),
  m: mFactor.describe("M-factor for water, acute and chronic; 1 where nothing is said"),
  m_acute: mFactor.describe("where it is another than the chronic one"),
  m_chronic: mFactor,
  ate_oral_mg_kg: estimate,
  ate_dermal_mg_kg: estimate,
  ate_inhalation_mg_l: estimate,
  inhaled_as: z.enum(["vapor", "dust"]).nullish().describe("what the estimate for inhalation is of; dust or mist where nothing is said"),
  specific_limits: z
    .array(z.object({ class: hazardClass, percent: percent.gt(0, "Above 0 %.") }))
    .max(40)
    .nullish(),
});
/** Figures that were rounded to the last digit may come to a little more. */
const WHOLE_PERCENT = 100.01;
const sumOf = (list: readonly { percent: number }[]) => list.reduce((sum, item) => sum + item.percent, 0);
export const hazardRequest = z
  .object({
    parts: z
      .array(z.object({ percent: percent.describe("of the candle"), ingredients: z.array(ingredient).max(500) }))
      .min(1, "At least one part.")
      .max(100),
    cut_offs: z
      .boolean()
      .default(false)
      .describe("whether ingredients below the cut-off values of annex I, table 1.1 are left out; without them more is classified"),
  })
  .superRefine((item, context) => {
    if (sumOf(item.parts) > WHOLE_PERCENT)
      context.addIssue({ code: "custom", path: ["parts"], message: `The parts come to ${digits(sumOf(item.parts))} % of the candle: at most 100 %.` });
    item.parts.forEach((part, index) => {
      if (sumOf(part.ingredients) > WHOLE_PERCENT)
        context.addIssue({
          code: "custom",
          path: ["parts", index, "ingredients"],
          message: `The ingredients come to ${digits(sumOf(part.ingredients))} % of the part: at most 100 %.`,
        });
    });
  });
export type HazardRequest = z.input<typeof hazardRequest>;

const label = z.object({
  classes: z.array(z.string()),
  signal: z.enum(["Warning", "Danger"]).nullable(),
  pictograms: z.array(z.string()),
  h: z.array(z.string()),
  euh: z.array(z.string()),
});
export const hazardAnswer = label.extend({
  contains: z.array(z.string()).describe("names that stand on the label"),
  working: z.array(z.object({ rule: z.string(), value: z.number(), limit: z.number(), met: z.boolean(), from: z.array(z.string()) })),
  missing: z.array(z.string()).describe("what was not said, and what was taken instead"),
  alike: z.array(z.tuple([z.string(), z.string()])).describe("names that are spelled nearly alike: are they one substance?"),
  cut_offs: z.boolean().describe("whether cut-off values were used"),
  otherwise: label.nullable().describe("what the label would say with the other choice of cut-off values; null where it would say the same"),
  draft: z.literal(true),
});
export type HazardAnswer = z.output<typeof hazardAnswer>;
