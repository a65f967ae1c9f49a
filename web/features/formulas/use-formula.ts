"use client";

import {
  type DyeDose,
  type DyePart,
  type FormulaSpec,
  formulaFaults,
  type LoadBasis,
  type OilTest,
  PRESET_PROCESSES,
  type Process,
  suggestFormula,
} from "@hearth/core";
import { type ReactNode, useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { useDraft } from "@/catalogue/draft";
import { type Few, useShelf } from "@/catalogue/use-shelf";
import { callAction } from "@/forms/call-action";
import { useFields } from "@/forms/fields";
import { suggestedFirst } from "@/forms/matches";
import { keptProcessOf, processFromFields, processTexts, stepFieldName } from "@/forms/process-fields";
import { useWorkshop } from "@/log/workshop";
import type { ColorRow } from "@/server/formulas/colors";
import { type Saved, saveFormula } from "@/server/formulas/formula-save";
import type { CustomProcess } from "@/server/formulas/processes";
import { useRouter } from "@/ui/address";
import { useUnits } from "@/ui/units";
import { draftOf, textsOnChoosing, withDyes, withPart } from "./draft-model";
import { loadText, type PartKind, type PartRow, partsFrom, rowsOf, rulesFor } from "./editor-fields";
import type { VersionShown } from "./versions";

export interface FormulaProps {
  formula: { id: string; name: string; version: number } | null;
  versions: VersionShown[];
  few: Few;
  processes: CustomProcess[];
  colors: ColorRow[];
  /** Tests of oils and blends before wax, newest first. */
  oilTests: readonly OilTest[];
  notes?: ReactNode;
}

/** A formula as it is typed: its parts, its process, its fields, and what follows from them. */
export function useFormula({ formula, versions, few }: FormulaProps) {
  const known = useShelf(few);
  const { shelf, stocks, recentlyUsed } = known;
  const units = useUnits();
  const newest = versions[0] ?? null;
  /** What a new formula begins with: what was used last. */
  const [usual] = useState(() => ({
    wax: suggestedFirst(shelf.waxes, recentlyUsed, (id) => stocks[id]?.onHand)[0]?.id ?? "",
    oil: suggestedFirst(shelf.fragrances, recentlyUsed, (id) => stocks[id]?.onHand)[0]?.id ?? "",
  }));
  const item = (id: string) => (id ? [{ id, share: 1 }] : []);
  /** What the materials that were chosen last begin with. */
  const [suggested, setSuggested] = useState(() => suggestFormula({ waxes: item(usual.wax), fragrances: item(usual.oil) }, shelf, units.temperature));
  const [process, setProcess] = useState<Process>(() => newest?.spec.process ?? suggested.process);
  const [rows, setRows] = useState(() => rowsOf(newest?.spec ?? null, usual, units.mass));
  const [now, setNow] = useState<{ basis: LoadBasis; doses: Record<string, DyeDose> }>({ basis: newest?.spec.basis ?? "wax", doses: {} });
  const rules = useMemo(
    () => rulesFor(formula?.name ?? "", newest?.spec ?? null, rows, now, process, units, suggested.loadPpm),
    [formula?.name, newest?.spec, rows, now, process, units, suggested.loadPpm],
  );
  const fields = useFields(rules);
  const text = (name: string) => fields.text(name as never);
  const kept = useDraft(`formula:${formula?.id ?? "new"}`, { ...fields.typed, rows: JSON.stringify(rows), process: JSON.stringify(process) }, (back) => {
    const { rows: keptRows, process: keptProcess, ...typed } = back;
    const before = keptProcessOf(keptProcess);
    if (before) setProcess(before);
    setRows(JSON.parse(keptRows ?? "[]") as typeof rows);
    known.look();
    fields.fill(typed as never);
  });
  // What a dye's dose is counted in, and the basis, say how other fields are to be read.
  const basis = fields.values.basis ?? "wax";
  const doses = Object.fromEntries(rows.filter((row) => row.kind === "dye").map((row) => [row.key, text(`${row.key}:by`) as DyeDose]));
  if (now.basis !== basis || JSON.stringify(now.doses) !== JSON.stringify(doses)) setNow({ basis, doses });
  const values = fields.values as Record<string, unknown> & { basis?: LoadBasis; load?: number };
  const draft = useMemo(() => draftOf(rows, values, process, shelf, units), [rows, values, process, shelf, units]);
  const take = (next: Process) => {
    setProcess(next);
    fields.fill(processTexts(next, units) as never);
  };
  return {
    ...{ formula, newest, known, fields, text, kept, values, rows, setRows, process, take, draft, suggested, setSuggested },
    nameOf: (id: string) =>
      [...shelf.waxes, ...shelf.fragrances, ...shelf.additives, ...shelf.dyes].find((each) => each.id === id)?.name ?? "something no longer on the shelf",
    /** Returns the formula that the fields say; null where a field that it needs cannot be read. */
    specFrom: (all: { basis?: LoadBasis; load?: number; notes?: string } & Record<string, unknown>): FormulaSpec | null => {
      const drafted = processFromFields(process, all);
      if (!drafted || all.basis === undefined || all.load === undefined) return null;
      return { ...partsFrom(rows, all, units.mass), basis: all.basis, loadPpm: all.load, notes: all.notes ?? "", process: drafted };
    },
  };
}
export type FormulaState = ReturnType<typeof useFormula>;

/** Returns what is done to the parts of a formula; its process, load and doses follow where the maker has not made them their own. */
export function useParts({ formula, known, fields, text, values, rows, setRows, process, take, suggested, setSuggested }: FormulaState) {
  const units = useUnits();
  const { shelf } = known;
  const follow = (rowsNow: PartRow[], changed: Record<string, string> = {}) => {
    const there = Object.fromEntries(
      rowsNow.flatMap((row) => [
        [`${row.key}:id`, row.id],
        [`${row.key}:share`, Number(row.share)],
      ]),
    );
    const { waxes, fragrances } = partsFrom(rowsNow, { ...there, ...values, ...changed }, units.mass);
    const next = suggestFormula({ waxes, fragrances }, shelf, units.temperature);
    const isReady = PRESET_PROCESSES.some((preset) => preset.name === text("processName"));
    const isAsItCame = Object.entries(processTexts(process, units)).every(([name, message]) => text(name) === message);
    if (isReady && isAsItCame && (!formula || process.name !== next.process.name)) take(next.process);
    if (!formula && text("load") === loadText(suggested.loadPpm)) fields.set("load", loadText(next.loadPpm));
    setSuggested(next);
  };
  const put = (all: PartRow[]) => {
    setRows(all);
    follow(all);
  };
  return {
    choose: (kind: PartKind, key: string, id: string) => {
      for (const [name, message] of Object.entries(textsOnChoosing(kind, key, id, shelf, text, units.mass))) fields.set(name as never, message);
      follow(rows, { [`${key}:id`]: id });
    },
    add: (kind: PartKind) => put(withPart(rows, kind, shelf, (key) => text(`${key}:id`), units.mass)),
    drop: (key: string) => put(rows.filter((row) => row.key !== key)),
    /** The dyes of a color take the place of those that stand here. */
    takeColor: (dyes: DyePart[]) => {
      known.look();
      setRows((old) => withDyes(old, dyes, units.mass));
    },
  };
}

/** Saves a formula; where somebody else saved it in between, says what they changed. */
export function useSaving({ formula, newest, fields, rows, kept, specFrom }: FormulaState) {
  const workshop = useWorkshop();
  const router = useRouter();
  const [expected, setExpected] = useState(formula?.version ?? null);
  const [stale, setStale] = useState<Saved["stale"]>(null);
  // What the form was begun with: the page may bring a newer version that somebody else saved meanwhile.
  const [base, setBase] = useState(newest?.spec ?? null);
  const [freshId] = useState(() => v7());
  const [message, setMessage] = useState<{ tone: "good" | "bad"; text: string } | null>(null);
  const [busy, start] = useTransition();
  const first = (kind: PartKind) => `${rows.find((row) => row.kind === kind)?.key}:id`;
  const fieldOf: Record<string, string> = {
    loadPpm: "load",
    fragrances: first("fragrance"),
    waxes: first("wax"),
    parts: first("wax"),
    wax: first("wax"),
    fragrance: first("fragrance"),
    dye: first("dye"),
    additive: first("additive"),
  };
  /** Returns the field that a path within a formula is typed into. */
  const fieldAt = (path: readonly (string | number)[], spec: FormulaSpec): string => {
    const [head, index, key] = path[0] === "process" ? path.slice(1) : path;
    const step = head === "steps" ? spec.process.steps[Number(index)] : undefined;
    return step ? stepFieldName(step, { key: String(key) }) : (fieldOf[String(head)] ?? String(head));
  };
  const specNow = (): FormulaSpec | null => {
    const all = fields.check();
    const spec = all && specFrom(all as Record<string, unknown>);
    if (!spec) {
      setMessage(null);
      return null;
    }
    const faults = formulaFaults(spec);
    if (faults.length === 0) return spec;
    fields.refuse(Object.fromEntries(faults.map(({ path, message }) => [fieldAt(path, spec), [message]])));
    setMessage({ tone: "bad", text: faults[0]?.message ?? "" });
    return null;
  };
  const save = (over: number | null) => {
    const spec = specNow();
    if (!spec) return;
    start(async () => {
      const outcome = await callAction(saveFormula(workshop, { id: formula?.id ?? null, freshId, expectedVersion: over, name: fields.values.name, spec }));
      if (!outcome.ok) {
        fields.refuse(
          Object.fromEntries(Object.entries(outcome.fields).map(([name, messages]) => [fieldAt(name.replace(/^spec\./, "").split("."), spec), messages])),
        );
        return setMessage({ tone: "bad", text: outcome.message });
      }
      const { value } = outcome;
      setStale(value.stale);
      if (value.stale) return setMessage(null);
      kept.drop();
      const again = value.due.length > 0 ? ` Test the wick again of ${value.due.join(", ")}.` : "";
      setExpected(value.version);
      setBase(spec);
      setMessage({
        tone: "good",
        text: value.next
          ? `Saved as version ${value.number}: the one before has been used, so it stays as it was.${again}`
          : `Saved, version ${value.number}.${again}`,
      });
      if (formula) router.refresh();
      else router.push(`/formulas/${value.id}`);
    });
  };
  return { save: () => save(expected), saveOver: () => save(stale?.version ?? null), busy, message, stale, base };
}
export type Saving = ReturnType<typeof useSaving>;
