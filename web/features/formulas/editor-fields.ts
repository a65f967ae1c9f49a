import {
  bad,
  type DyeDose,
  doseFromShown,
  doseShown,
  type FormulaSpec,
  good,
  type LoadBasis,
  type MassUnit,
  type Parsed,
  type Process,
  parseLoad,
  parseNumber,
  parsePercent,
  writeNumber,
  writePercent,
} from "@hearth/core";
import { type FieldRule, named, words } from "@/forms/fields";
import { processRules } from "@/forms/process-fields";
import type { Formats } from "@/ui/units";

export type PartKind = "wax" | "fragrance" | "additive" | "dye";

/** One line of what goes in. Its fields are `wax:0:id`, `wax:0:share` and so on. */
export interface PartRow {
  kind: PartKind;
  key: string;
  id: string;
  share: string;
  by: DyeDose;
}

/** Returns the ingredient rows of a formula, or of a new one. */
export function rowsOf(spec: FormulaSpec | null, first: { wax: string; oil: string }, mass: MassUnit): PartRow[] {
  let at = 0;
  const row = (kind: PartKind, id: string, share: string, by: DyeDose = "drops"): PartRow => ({ kind, key: `${kind}:${at++}`, id, share, by });
  if (!spec) return [row("wax", first.wax, "1"), row("fragrance", first.oil, "1")];
  const shown = (n: number) => writeNumber(n, 4);
  return [
    ...spec.waxes.map((part) => row("wax", part.id, shown(part.share))),
    ...(spec.fragrances.length > 0 ? spec.fragrances.map((part) => row("fragrance", part.id, shown(part.share))) : [row("fragrance", "", "1")]),
    ...(spec.additives ?? []).map((part) => row("additive", part.id, shown(part.ppm / 10_000))),
    ...(spec.dyes ?? []).map((part) => row("dye", part.id, shown(doseShown(part, mass)), part.by)),
  ];
}

const positive =
  (most: number, what: string) =>
  (text: string): Parsed<number> => {
    const read = parseNumber(text.replace(/\s*%$/, ""));
    if (!read.ok) return read;
    if (read.value <= 0) return bad("too-small", `${what} must be above 0.`);
    return read.value > most ? bad("too-large", `${what} cannot be above ${most}.`) : read;
  };

/** Returns the rules of one line's fields. */
function rulesOfRow(row: PartRow, dose: DyeDose): Record<string, FieldRule<unknown>> {
  const chosen = (text: string): Parsed<string> =>
    text || row.kind === "fragrance"
      ? good(text)
      : bad("empty", `Choose ${row.kind === "additive" ? "an" : "a"} ${row.kind}. The shelf has none yet: add one there first.`);
  const share =
    row.kind === "additive"
      ? (text: string) => parsePercent(text, { least: 0.001, most: 50, name: "an additive's share" })
      : positive(row.kind === "dye" ? (dose === "percent" ? 10 : 1_000) : 1_000_000, row.kind === "dye" ? "The dye" : "A share");
  return {
    [`${row.key}:id`]: { initial: row.id, parse: chosen },
    [`${row.key}:share`]: { initial: row.share, parse: share },
    ...(row.kind === "dye" ? { [`${row.key}:by`]: { initial: row.by, parse: (text: string) => good(text as DyeDose) } } : {}),
  };
}

/** Returns the text of the load field. */
export const loadText = (ppm: number): string => writePercent(ppm, 3).replace(" %", "");

/** Returns the rules of all fields. `basis` is the one chosen at present. */
export function rulesFor(
  name: string,
  spec: FormulaSpec | null,
  rows: readonly PartRow[],
  now: { basis: LoadBasis; doses: Record<string, DyeDose> },
  process: Process,
  units: Formats,
  firstLoadPpm: number,
) {
  const parts: Record<string, FieldRule<unknown>> = Object.assign({}, ...rows.map((row) => rulesOfRow(row, now.doses[row.key] ?? row.by)));
  const shown = loadText(spec?.loadPpm ?? firstLoadPpm);
  const fixed = {
    name: named("the formula", name),
    basis: { initial: spec?.basis ?? "wax", parse: (text: string) => good(text as LoadBasis) },
    load: {
      initial: shown,
      parse: (text: string) => (spec && now.basis === spec.basis && text === shown ? good(spec.loadPpm) : parseLoad(text, now.basis)),
      echo: (ppm: number) => writePercent(ppm, 4),
    },
    notes: words(spec?.notes ?? ""),
  } satisfies Record<string, FieldRule<unknown>>;
  return { ...parts, ...processRules(process, units), ...fixed } as typeof fixed & Record<string, FieldRule<unknown>>;
}

/** The lines as a formula says them, from fields that have been read. Lines without a material are left out. */
export function partsFrom(rows: readonly PartRow[], values: Readonly<Record<string, unknown>>, mass: MassUnit) {
  const of = (kind: PartKind) =>
    rows.flatMap((row) => {
      const id = values[`${row.key}:id`];
      const share = values[`${row.key}:share`];
      return row.kind === kind && typeof id === "string" && id !== "" && typeof share === "number"
        ? [{ id, share, by: (values[`${row.key}:by`] ?? row.by) as DyeDose }]
        : [];
    });
  const [additives, dyes] = [of("additive"), of("dye")];
  return {
    waxes: of("wax").map(({ id, share }) => ({ id, share })),
    fragrances: of("fragrance").map(({ id, share }) => ({ id, share })),
    ...(additives.length > 0 ? { additives: additives.map(({ id, share }) => ({ id, ppm: share })) } : {}),
    ...(dyes.length > 0 ? { dyes: dyes.map(({ id, share, by }) => ({ id, by, amount: doseFromShown(by, share, mass) })) } : {}),
  };
}
