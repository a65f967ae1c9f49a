import {
  type CandleNote,
  type FormulaSpec,
  type NoteValues,
  type Process,
  rangeOfStep,
  readFormula,
  recorderOf,
  type StepRecord,
  suggestFormula,
} from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import type { Transaction } from "@/data/client";
import { formulas, formulaVersions } from "@/data/tables/formula";
import type { Actor } from "@/server/http/context";
import type { ShelfMaterials } from "@/server/inventory/shelf";

/** One version of a formula that notes were matched to, or that was made for them. */
export interface NotedVersion {
  id: string;
  formulaId: string;
  name: string;
  number: number;
  spec: FormulaSpec;
}

/** What of a formula decides whether a note means it: waxes and scents with their shares, to a thousandth, and the load. */
function recipeKey(parts: Pick<CandleNote, "waxes" | "scents">): string {
  const shares = (of: CandleNote["waxes"]) => {
    const all = of.reduce((sum, part) => sum + part.share, 0) || 1;
    return of.map((part) => [part.ref, Math.round((part.share / all) * 1_000)] as const).sort((a, b) => (a[0] < b[0] ? -1 : 1));
  };
  return JSON.stringify([shares(parts.waxes), shares(parts.scents)]);
}
const keyOfSpec = (spec: Pick<FormulaSpec, "waxes" | "fragrances">): string =>
  recipeKey({
    waxes: spec.waxes.map((part) => ({ ref: part.id, share: part.share })),
    scents: spec.fragrances.map((part) => ({ ref: part.id, share: part.share })),
  });

/** A step's range is drawn to the temperature that a recipe says and so much on either side, in hundredths of °C. Our choice. */
const EITHER_SIDE = 200;

/** The formulas that notes stand for: those of the workshop with the same waxes, scents and load, and new ones for the rest. */
export class NotedFormulas {
  readonly created: { formulas: string[]; versions: string[] } = { formulas: [], versions: [] };
  private readonly names: Set<string>;
  private readonly byRecipe = new Map<string, NotedVersion[]>();

  constructor(
    private readonly tx: Transaction,
    private readonly actor: Actor,
    private readonly shelf: ShelfMaterials,
    private readonly versions: NotedVersion[],
  ) {
    this.names = new Set(versions.map((version) => version.name.toLowerCase()));
    for (const version of versions) this.remember(version);
  }

  /** Reads every version of the workshop's formulas; what cannot be read is left out. */
  static async known(tx: Transaction, workshopId: string): Promise<NotedVersion[]> {
    const rows = await tx
      .select({ id: formulaVersions.id, formulaId: formulaVersions.formulaId, number: formulaVersions.number, spec: formulaVersions.spec, name: formulas.name })
      .from(formulaVersions)
      .innerJoin(formulas, and(eq(formulas.workshopId, formulaVersions.workshopId), eq(formulas.id, formulaVersions.formulaId)))
      .where(eq(formulaVersions.workshopId, workshopId));
    return rows.flatMap((row) => {
      try {
        return [{ ...row, spec: readFormula(row.spec) }];
      } catch {
        return [];
      }
    });
  }

  /** Returns the version that a note means: one with the same recipe, or a new one. Null if its wax or a scent is not on the shelf. */
  async versionOf(note: CandleNote, day: string): Promise<NotedVersion | null> {
    const same = this.byRecipe.get(recipeKey(note)) ?? [];
    const exact = same.find((version) => version.spec.basis === "wax" && version.spec.loadPpm === note.loadPpm);
    if (exact) return exact;
    const spec = this.specOf(note);
    return spec && this.put(spec, same[0] ?? null, this.nameOf(spec), `${day}T12:00:00.000Z`);
  }

  /** Keeps a version where a note of its recipe finds it; one with additives or dye is another recipe. */
  private remember(version: NotedVersion): void {
    if (version.spec.additives?.length || version.spec.dyes?.length) return;
    const key = keyOfSpec(version.spec);
    const same = this.byRecipe.get(key);
    if (same) same.push(version);
    else this.byRecipe.set(key, [version]);
  }

  /** Puts a recipe in under its own name, with the temperatures and the cure that it says. Null if its wax or a scent is not on the shelf. */
  async recipe(note: CandleNote, values: NoteValues): Promise<NotedVersion | null> {
    const spec = this.specOf(note);
    if (!spec) return null;
    const name = values.name ?? this.nameOf(spec);
    const known = this.versions.find(
      (version) => version.name.toLowerCase() === name.toLowerCase() && keyOfSpec(version.spec) === keyOfSpec(spec) && version.spec.loadPpm === spec.loadPpm,
    );
    const notes = [values.remarks, values.vessel ? `Vessel: ${values.vessel}` : "", values.wick ? `Wick: ${values.wick}` : ""].filter(Boolean).join("\n");
    return known ?? this.put({ ...spec, notes: notes.slice(0, 2_000), process: withNoted(spec.process, values) }, null, name, this.actor.now);
  }

  private specOf(note: CandleNote): FormulaSpec | null {
    const waxes = note.waxes.map((part) => ({ id: part.ref, share: part.share }));
    const fragrances = note.scents.map((part) => ({ id: part.ref, share: part.share }));
    const isThere = (all: readonly { id: string }[], parts: readonly { id: string }[]) => parts.every((part) => all.some((row) => row.id === part.id));
    if (waxes.length === 0 || !isThere(this.shelf.waxes, waxes) || !isThere(this.shelf.fragrances, fragrances)) return null;
    const { process } = suggestFormula({ waxes, fragrances }, this.shelf, this.actor.workshop.temperatureUnit);
    return { waxes, fragrances, basis: "wax", loadPpm: note.loadPpm, notes: "", process };
  }

  /** Returns what a formula of notes is called: by its scent, with the wax where another has the scent alone. */
  private nameOf(spec: FormulaSpec): string {
    const named = (all: readonly { id: string; name: string }[], parts: readonly { id: string }[]) =>
      parts.map((part) => all.find((row) => row.id === part.id)?.name ?? "").join(" + ");
    const wax = named(this.shelf.waxes, spec.waxes);
    const scent = named(this.shelf.fragrances, spec.fragrances) || "Unscented";
    return this.names.has(scent.toLowerCase()) ? `${scent}, ${wax}` : scent;
  }

  private async put(spec: FormulaSpec, of: NotedVersion | null, name: string, createdAt: string): Promise<NotedVersion> {
    const { workshop, now, person } = this.actor;
    let own = name.slice(0, 110);
    for (let n = 2; !of && this.names.has(own.toLowerCase()); n++) own = `${name.slice(0, 110)} ${n}`;
    const formulaId = of?.formulaId ?? v7();
    if (!of) {
      await this.tx.insert(formulas).values({ workshopId: workshop.id, id: formulaId, name: own, updatedAt: now, updatedBy: person?.id ?? null });
      this.created.formulas.push(formulaId);
      this.names.add(own.toLowerCase());
    }
    const number = 1 + this.versions.reduce((most, version) => (version.formulaId === formulaId ? Math.max(most, version.number) : most), 0);
    const version: NotedVersion = { id: v7(), formulaId, name: of?.name ?? own, number, spec };
    await this.tx.insert(formulaVersions).values({ workshopId: workshop.id, id: version.id, formulaId, number, spec, createdAt });
    this.created.versions.push(version.id);
    this.versions.push(version);
    this.remember(version);
    return version;
  }
}

/** Returns a process with the temperatures and the cure that a recipe says. */
function withNoted(process: Process, { heat, add, pour, cure }: NoteValues): Process {
  const said: Partial<Record<StepRecord, number | undefined>> = { heat_c: heat, add_c: add, pour_c: pour };
  const steps = process.steps.map((step) => {
    for (const [value, at] of Object.entries(said) as [StepRecord, number | undefined][])
      if (at !== undefined && recorderOf(process.steps, value) === step && rangeOfStep(step))
        return { ...step, range: { low: at - EITHER_SIDE, high: at + EITHER_SIDE } };
    return cure !== undefined && recorderOf(process.steps, "cure_days") === step && "recommended" in step
      ? { ...step, least: Math.min(step.least, cure), recommended: cure }
      : step;
  });
  const hottest = Math.max(process.ceiling, (heat ?? 0) + EITHER_SIDE);
  return { ...process, ceiling: hottest, steps: steps as Process["steps"] };
}
