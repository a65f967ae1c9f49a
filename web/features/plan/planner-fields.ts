import { type EmbedChoice, good, parseCount, parseLength, parsePart, writeLength } from "@hearth/core";
import { embedChoicesOf } from "@/catalogue/embed-fields";
import { choiceRule, type FieldRule, orNothing, untouched } from "@/forms/fields";
import { massRule, percentRule, whenRule } from "@/forms/rules";
import type { Shelf } from "@/server/inventory/shelf";
import type { Formats } from "@/ui/units";
import { type Line, type Part, suitedWick } from "./model";

const count = {
  initial: "",
  parse: (text: string) => (text.trim() === "" ? good(0) : parseCount(text, { least: 0, most: 100_000, name: "jars" })),
} satisfies FieldRule<number>;
const part: FieldRule<unknown> = { initial: "full", parse: parsePart };

/** What the amounts begin from. */
export type From = "vessels" | "wax" | "total";

/** What the fields of the planner mean, beside those of each line. */
export interface PlannerValues {
  from?: From;
  weight?: number | null;
  spare?: number;
  pitcher?: number | null;
  stays?: number | null;
  startedAt?: string | null;
}

/** The line that stands for a container first: what is counted of it by its vessel alone is counted there. */
const firstOf = (lines: readonly Line[], containerId: string): string | undefined => lines.find((line) => line.container.id === containerId)?.key;

/** Returns the rules of the planner's fields: those of the whole plan, and of each line its count, part, wick and how many wicks. */
export function plannerRules(
  lines: readonly Line[],
  {
    units,
    counts,
    family,
    shelf,
    now,
    formulaIds,
  }: { units: Formats; counts: Record<string, string>; family: string; shelf: Shelf; now: string; formulaIds: readonly string[] },
): Record<string, FieldRule<unknown>> {
  return {
    from: choiceRule("vessels"),
    weight: orNothing(massRule(units)) as FieldRule<unknown>,
    spare: percentRule({ least: 0, most: 100, name: "the extra" }, "5") as FieldRule<unknown>,
    waxScale: choiceRule(""),
    oilScale: choiceRule(""),
    stays: orNothing(massRule(units, { most: 1_000_000 })) as FieldRule<unknown>,
    pitcher: orNothing(massRule(units, { least: 50_000 })) as FieldRule<unknown>,
    startedAt: whenRule(now, units) as FieldRule<unknown>,
    ...Object.fromEntries(
      lines.flatMap(({ key, product, container }) => {
        const wick = product ? product.wickId : (suitedWick(container, family, shelf.wicks)?.id ?? null);
        return [
          [`count:${key}`, { ...count, initial: counts[key] ?? (firstOf(lines, container.id) === key ? (counts[container.id] ?? "") : "") }],
          [`part:${key}`, part],
          [`pot:${key}`, choiceRule(String(Math.max(0, formulaIds.indexOf(product?.formulaId ?? ""))))],
          ...(container.container === "mold" ? [[`height:${key}`, heightRule(container.heightUm, units)] as [string, FieldRule<unknown>]] : []),
          [`embeds:${key}`, choiceRule(JSON.stringify(product?.embeds ?? []))],
          [`wick:${key}`, choiceRule(wick ?? "")],
          [`wicks:${key}`, choiceRule(String(product?.wicks ?? shelf.vessels.find((vessel) => vessel.id === container.id)?.wicks ?? 1))],
        ];
      }),
    ),
  };
}

/** Returns the rule of a candle's height in a mold: as high as usual at first, and no higher than the mold. */
const heightRule = (heightUm: number, units: Formats): FieldRule<unknown> =>
  untouched<unknown>(
    {
      initial: writeLength(heightUm, units.length ?? "mm", 3).replace(/ mm$/, ""),
      parse: (text: string) => parseLength(text, { least: 5, most: heightUm / 1_000 }, units.length ?? "mm"),
    },
    heightUm,
  );

/** What is made of one line, as it is typed. */
export interface LineTyped {
  count: number;
  part: Part;
  wickId: string;
  wicks: number;
  /** What is laid into one piece. */
  embeds: EmbedChoice[];
  /** The pot that it is poured from, where one melt is divided. */
  pot: number;
  /** How high a mold is filled, in micrometers. */
  heightUm: number | null;
}
/** Returns the embeds that a field of a line holds as text. */
export const embedsIn = (text: string): EmbedChoice[] => JSON.parse(text || "[]") as EmbedChoice[];
/** Returns what the fields of a line say. */
export const typedOf = (key: string, values: Readonly<Record<string, unknown>>, text: (name: string) => string): LineTyped => ({
  count: (values[`count:${key}`] as number | undefined) ?? 0,
  part: (values[`part:${key}`] as Part | undefined) ?? null,
  wickId: text(`wick:${key}`),
  wicks: Number(text(`wicks:${key}`)) || 1,
  embeds: embedChoicesOf(embedsIn(text(`embeds:${key}`))),
  pot: Number(text(`pot:${key}`)) || 0,
  heightUm: (values[`height:${key}`] as number | undefined) ?? null,
});
