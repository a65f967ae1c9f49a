import {
  disagreements,
  doseShown,
  firstDose,
  LARGEST_LOAD_PERCENT,
  type LoadBasis,
  limitsOf,
  loadOfTotal,
  loadOfWax,
  type MassUnit,
  materialsOf,
  mixComponents,
  mixOf,
  type Process,
  processFaults,
  sharesOf,
  suggestedDose,
  type UnitChoice,
  weighOut,
  writeNumber,
} from "@hearth/core";
import { processFromFields } from "@/forms/process-fields";
import type { Shelf } from "@/server/inventory/shelf";
import { type PartKind, type PartRow, partsFrom } from "./editor-fields";

type Typed = Record<string, unknown> & { basis?: LoadBasis; load?: number };

/** Returns what it is made of, from so large a total that no step of a scale shows. */
function sampleOf(basis: LoadBasis, loadPpm: number, mix: ReturnType<typeof mixOf>) {
  const scaled = weighOut({
    basis,
    loadPpm,
    maxLoadPpm: null,
    vessels: [],
    start: { totalMg: 1_000_000_000 },
    sparePpm: 0,
    resolutionUg: 1_000,
    ...sharesOf(mix),
  });
  return mixComponents(scaled, mix);
}

/** Returns what follows from a formula as it is typed: its parts, both readings of the load, its process, and what these and the shelf disagree on. */
export function draftOf(rows: readonly PartRow[], typed: Typed, process: Process, shelf: Shelf, units: Pick<UnitChoice, "mass" | "temperature">) {
  const unit = units.temperature;
  const basis = typed.basis ?? "wax";
  const parts = partsFrom(rows as PartRow[], typed, units.mass);
  const mix = mixOf(parts, shelf);
  const load = typed.load !== undefined && typed.load <= LARGEST_LOAD_PERCENT[basis] * 10_000 ? typed.load : null;
  const drafted = processFromFields(process, typed);
  const worked = drafted && processFaults(drafted.steps).length === 0 ? drafted : null;
  return {
    basis,
    parts,
    family: materialsOf(parts, shelf).named[0]?.family ?? "",
    // With an additive the load is stated alike here, in the plan and in the record.
    ofWax: load === null ? null : loadOfWax({ basis, loadPpm: load }, mix),
    ofTotal: load === null ? null : loadOfTotal({ basis, loadPpm: load }, mix),
    limit: limitsOf(parts, shelf)[0],
    process: worked,
    found: disagreements({ ...parts, basis, loadPpm: load ?? undefined, process: worked ?? undefined }, shelf, unit),
    sample: load === null || parts.waxes.length === 0 ? null : sampleOf(basis, load, mix),
  };
}

const dyeKind = (shelf: Shelf, id: string | undefined) => shelf.dyes.find((dye) => dye.id === id)?.kind ?? "liquid";
const additiveDose = (shelf: Shelf, id: string | undefined) => writeNumber(suggestedDose(shelf.additives.find((additive) => additive.id === id)) / 10_000, 4);

/** Returns a first dose as its field has it: a whole number of drops or pieces. */
const firstDoseText = (dose: ReturnType<typeof firstDose>, mass: MassUnit): string =>
  writeNumber(dose.by === "percent" ? dose.amount : Math.max(1, Math.round(doseShown(dose, mass))), 4);

/** Returns the next free key of a part. */
const nextKey = (rows: readonly PartRow[]): number => rows.reduce((most, row) => Math.max(most, Number(row.key.split(":")[1])), 0) + 1;

/** The rows with one more part of a kind: the first of the shelf that is not there yet, with its usual dose. */
export function withPart(rows: readonly PartRow[], kind: PartKind, shelf: Shelf, chosen: (key: string) => string, mass: MassUnit): PartRow[] {
  const list: readonly { id: string }[] = { wax: shelf.waxes, fragrance: shelf.fragrances, additive: shelf.additives, dye: shelf.dyes }[kind];
  const free = list.find((item) => !rows.some((row) => chosen(row.key) === item.id));
  const dye = firstDose(dyeKind(shelf, free?.id));
  const share = kind === "additive" ? additiveDose(shelf, free?.id) : kind === "dye" ? firstDoseText(dye, mass) : "1";
  return [...rows, { kind, key: `${kind}:${nextKey(rows)}`, id: free?.id ?? "", share, by: kind === "dye" ? dye.by : "drops" }];
}

/** Returns the rows with these dyes in the place of those that stand there. */
export function withDyes(rows: readonly PartRow[], dyes: readonly { id: string; amount: number; by: PartRow["by"] }[], mass: MassUnit): PartRow[] {
  const from = nextKey(rows);
  const fresh = dyes.map(
    (dye, index): PartRow => ({ kind: "dye", key: `dye:${from + index}`, id: dye.id, share: writeNumber(doseShown(dye, mass), 4), by: dye.by }),
  );
  return [...rows.filter((row) => row.kind !== "dye"), ...fresh];
}

/** Returns what the fields of a part become when another material is chosen: its usual dose, where the dose was the usual one of the material before. */
export function textsOnChoosing(kind: PartKind, key: string, id: string, shelf: Shelf, text: (name: string) => string, mass: MassUnit): Record<string, string> {
  const before = text(`${key}:id`);
  const texts: Record<string, string> = { [`${key}:id`]: id };
  if (kind === "additive" && text(`${key}:share`) === additiveDose(shelf, before)) texts[`${key}:share`] = additiveDose(shelf, id);
  if (kind === "dye") {
    // Chips and blocks are counted in pieces, whatever stood here before.
    const [old, next] = [firstDose(dyeKind(shelf, before)), firstDose(dyeKind(shelf, id))];
    if (text(`${key}:by`) === old.by && old.by !== next.by) {
      texts[`${key}:by`] = next.by;
      texts[`${key}:share`] = firstDoseText(next, mass);
    }
  }
  return texts;
}
