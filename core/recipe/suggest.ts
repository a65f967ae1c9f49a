import { ESSENTIAL_START_PPM, starterOf } from "../materials/starters";
import { inUnit, PRESET_PROCESSES, type PresetProcess, processFrom } from "../process/presets/ready";
import { isCuring, isOnBurner, rangeOfStep, recordedBy, type Step } from "../process/process";
import type { Process } from "../process/schema";
import { stepTypeOf } from "../process/steps";
import type { Ppm } from "../units/percent";
import type { TemperatureUnit } from "../units/temperature";
import { limitsOf, type Materials, materialsOf, sheetRange, type WaxFacts } from "./materials";
import type { FormulaSpec } from "./schema";

type Chosen = Pick<FormulaSpec, "waxes" | "fragrances">;

/** A load where neither oil nor wax says one: common practice, no source. */
const USUAL_LOAD: Ppm = 80_000;
/** The dose of an additive whose sheet says none, in millionths of the wax: common practice, no source. */
const USUAL_DOSE: Ppm = 20_000;

const ready = (id: string): PresetProcess => {
  const found = PRESET_PROCESSES.find((preset) => preset.id === id);
  if (!found) throw new Error(`There is no ready-made process “${id}”.`);
  return found;
};

/** Returns the share of each family in the wax, blends opened, the largest first; of two alike the first by name. */
function familiesOf(chosen: Chosen, shelf: Materials): [family: string, share: number][] {
  const shares = new Map<string, number>();
  const { waxes } = materialsOf(chosen, shelf);
  const all = waxes.reduce((sum, part) => sum + part.share, 0) || 1;
  for (const { wax, share } of waxes) shares.set(wax.family, (shares.get(wax.family) ?? 0) + share / all);
  return [...shares].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
}

/** What a pillar wax is called. */
const PILLAR = /pillar|\bmou?ld/i;

/** Returns the ready-made process that suits the whole blend and the scent, whatever was chosen first. Common practice, no source. */
function readyFor(chosen: Chosen, shelf: Materials): PresetProcess {
  const families = familiesOf(chosen, shelf);
  const { named, fragrances } = materialsOf(chosen, shelf);
  const has = (...names: string[]) => names.every((name) => families.some(([family]) => family === name));
  const first = families[0]?.[0] ?? "soy";
  if (has("gel")) return ready("gel");
  if (named.some((wax) => PILLAR.test(wax.name)) && first === "paraffin") return ready("pillar-glossy");
  if (fragrances.some((oil) => oil.kind === "essential oil") && first !== "palm") return ready("essential-oils");
  if (has("soy", "beeswax")) return ready("soy-beeswax");
  if (has("paraffin", "beeswax")) return ready("paraffin-beeswax-careful");
  if (has("coconut", "soy")) return ready("coconut-soy-hot");
  if (has("paraffin", "soy") || has("paraffin–soy")) return ready("paraffin-soy");
  return PRESET_PROCESSES.find((preset) => preset.makes === "jar" && preset.families.includes(first)) ?? ready("soy-bind-hot");
}

/** Returns the wax whose sheet speaks for the mixture: the one that there is most of; of two alike the first by name. */
function leadingWax(chosen: Chosen, shelf: Materials): WaxFacts | null {
  const share = (wax: WaxFacts) => chosen.waxes.reduce((sum, part) => sum + (part.id === wax.id ? part.share : 0), 0);
  const { named } = materialsOf(chosen, shelf);
  return [...named].sort((a, b) => share(b) - share(a) || (a.name < b.name ? -1 : 1))[0] ?? null;
}

/** Returns the process with the temperatures and the cure that the suppliers' sheets say, so far as they say them. */
function withSheets(from: PresetProcess, chosen: Chosen, shelf: Materials): Process {
  const process = processFrom(from);
  const wax = leadingWax(chosen, shelf);
  if (!wax) return process;
  const { named, waxes } = materialsOf(chosen, shelf);
  const sheets = [...named, ...waxes.map((part) => part.wax)];
  const most = (of: (waxFacts: WaxFacts) => number | null | undefined) => sheets.reduce((all, waxFacts) => Math.max(all, of(waxFacts) ?? 0), 0);
  const [least, cure] = [most((waxFacts) => waxFacts.leastCureSeconds), most((waxFacts) => waxFacts.cureSeconds)];
  // Oils that the heat drives off are added cool, whatever is usual for the wax.
  const keepsCool = from.id === "essential-oils";
  const steps = process.steps.map((step): Step => {
    if (rangeOfStep(step)) {
      const range = keepsCool && !isOnBurner(step) ? undefined : sheetRange(wax, stepTypeOf(step.kind).records);
      return range ? ({ ...step, range } as Step) : step;
    }
    if (!isCuring(step)) return step;
    const minimum = least > 0 ? least : step.least;
    return { ...step, least: minimum, recommended: Math.max(minimum, cure > 0 ? cure : step.recommended) };
  });
  const [heat] = recordedBy(steps, "heat_c");
  const heated = heat && rangeOfStep(heat);
  // A sheet that says how hot it may get, and not when to add, has it added below that.
  const adding = new Set(recordedBy(steps, "add_c"));
  const within = steps.map((step) =>
    heated && adding.has(step) && (rangeOfStep(step)?.low ?? 0) > heated.high && !wax.addRange ? ({ ...step, range: heated } as Step) : step,
  );
  return { ...process, ceiling: wax.ceiling ?? process.ceiling, steps: within };
}

/** Returns the dose to start an additive with, in millionths of the wax: its usual dose, at most its largest. */
export const suggestedDose = (additive: { usualPpm?: Ppm | null; maxPpm?: Ppm | null } | undefined): Ppm =>
  additive?.usualPpm ?? Math.min(USUAL_DOSE, additive?.maxPpm ?? USUAL_DOSE);

/** Returns the load that a formula begins with, in millionths of the wax: that of its oils, else that of its wax, within the limits. */
function suggestedLoad(chosen: Chosen, shelf: Materials): Ppm {
  const { fragrances } = materialsOf(chosen, shelf);
  const limit = limitsOf(chosen, shelf)[0]?.ppm ?? Number.POSITIVE_INFINITY;
  const ofWax = familiesOf(chosen, shelf).reduce((sum, [family, share]) => sum + share * (starterOf(family)?.loadPpm ?? USUAL_LOAD), 0) || USUAL_LOAD;
  const share = (id: string) => chosen.fragrances.find((part) => part.id === id)?.share ?? 0;
  const all = fragrances.reduce((sum, oil) => sum + share(oil.id), 0);
  const of = (oil: (typeof fragrances)[number]) => oil.usualLoadPpm ?? (oil.kind === "essential oil" ? Math.min(ESSENTIAL_START_PPM, ofWax) : ofWax);
  const wanted = all > 0 ? fragrances.reduce((sum, oil) => sum + (of(oil) * share(oil.id)) / all, 0) : ofWax;
  // To a tenth of a percent, and never above what is allowed.
  return Math.min(Math.round(wanted / 1_000) * 1_000, limit);
}

export interface Suggestion {
  process: Process;
  /** In millionths of the wax. */
  loadPpm: Ppm;
}

/**
 * Returns what a formula of these materials begins with: the ready-made process that suits them, with the temperatures and cure of the suppliers' sheets,
 * and the usual load. It follows from the materials alone, not from the order in which they were chosen.
 */
export function suggestFormula(chosen: Chosen, shelf: Materials, unit: TemperatureUnit): Suggestion {
  return { process: inUnit(withSheets(readyFor(chosen, shelf), chosen, shelf), unit), loadPpm: suggestedLoad(chosen, shelf) };
}
