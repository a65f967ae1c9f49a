"use client";

import {
  bandsOf,
  type DyeDose,
  type DyePart,
  difference,
  disagreements,
  type FormulaSpec,
  firstDose,
  formulaSpec,
  LARGEST_LOAD_PERCENT,
  type LoadBasis,
  limitsOf,
  loadOfTotal,
  loadOfWax,
  materialsOf,
  mixComponents,
  mixOf,
  type Process,
  process as processSchema,
  READY_PROCESSES,
  sharesOf,
  suggestedDose,
  suggestFormula,
  weighOut,
  writeLimitParts,
  writeNumber,
  writePerWeight,
} from "@hearth/core";
import { type ReactNode, useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { AddBeside } from "@/catalogue/add-beside";
import { useDraft } from "@/catalogue/draft";
import { type Few, useShelf } from "@/catalogue/use-shelf";
import { ask } from "@/forms/ask";
import { Field, useFields } from "@/forms/fields";
import { likeliest } from "@/forms/matches";
import { processFromFields, processTexts } from "@/forms/process-fields";
import { usePlace } from "@/log/place";
import type { Colour } from "@/server/colours";
import { type Saved, saveFormula } from "@/server/formula-save";
import type { OwnProcess } from "@/server/processes";
import { Link, useRouter } from "@/ui/address";
import { Aside, Caution, Screen, Warn } from "@/ui/margin";
import { PotStrip } from "@/ui/pot-strip";
import { useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";
import { Colours } from "./colours";
import { loadText, type PartKind, type PartRow, partsFrom, rowsOf, rulesFor } from "./editor-fields";
import { PartRows } from "./part-rows";
import { ProcessPart } from "./process-part";
import { Reach } from "./reach";
import { type VersionShown, Versions } from "./versions";

/** What a remark that only informs is headed with. */
const INFORM: Record<string, string> = {
  "above-flash-point": "Flash point",
  "limit-unknown": "Largest load not known",
  "load-above-usual": "Above the usual load",
  "family-unsuited": "Another wax than usual",
};

/** Makes or changes a formula: what goes in, how it is worked, what the two and the shelf disagree on. */
export function FormulaEditor(props: {
  formula: { id: string; name: string; version: number } | null;
  versions: VersionShown[];
  few: Few;
  processes: OwnProcess[];
  colours: Colour[];
  notes?: ReactNode;
}) {
  const { formula, versions } = props;
  const known = useShelf(props.few);
  const { shelf, stocks, lately } = known;
  const place = usePlace();
  const units = useUnits();
  const router = useRouter();
  const newest = versions[0] ?? null;
  /** What a new formula begins with: what was used last. */
  const usual = {
    wax: likeliest(shelf.waxes, lately, (id) => stocks[id]?.onHand)[0],
    oil: likeliest(shelf.fragrances, lately, (id) => stocks[id]?.onHand)[0],
  };
  const one = (id: string | undefined) => (id ? [{ id, share: 1 }] : []);
  /** What the materials that were chosen last begin with. */
  const [suggested, setSuggested] = useState(() => suggestFormula({ waxes: one(usual.wax?.id), fragrances: one(usual.oil?.id) }, shelf, units.temperature));
  const [process, setProcess] = useState<Process>(() => newest?.spec.process ?? suggested.process);
  const [rows, setRows] = useState(() => rowsOf(newest?.spec ?? null, { wax: usual.wax?.id ?? "", oil: usual.oil?.id ?? "" }));
  const [now, setNow] = useState<{ basis: LoadBasis; doses: Record<string, DyeDose> }>({ basis: newest?.spec.basis ?? "wax", doses: {} });
  const rules = useMemo(
    () => rulesFor(formula?.name ?? "", newest?.spec ?? null, rows, now, process, units, suggested.loadPpm),
    [formula?.name, newest?.spec, rows, now, process, units, suggested.loadPpm],
  );
  const fields = useFields(rules);
  const [expected, setExpected] = useState(formula?.version ?? null);
  const [stale, setStale] = useState<Saved["stale"]>(null);
  // What the form was begun with: the page may bring a newer version that somebody else saved meanwhile.
  const [base, setBase] = useState(newest?.spec ?? null);
  const [freshId] = useState(() => v7());
  const [said, setSaid] = useState<{ tone: "good" | "bad"; text: string } | null>(null);
  const [busy, start] = useTransition();
  const [adding, setAdding] = useState<{ kind: PartKind; key: string; name: string } | null>(null);
  const draft = useDraft(`formula:${formula?.id ?? "new"}`, { ...fields.typed, rows: JSON.stringify(rows), process: JSON.stringify(process) }, (kept) => {
    const { rows: keptRows, process: keptProcess, ...typed } = kept;
    const before = processSchema.safeParse(JSON.parse(keptProcess ?? "null"));
    if (before.success) setProcess(before.data);
    setRows(JSON.parse(keptRows ?? "[]") as typeof rows);
    known.look();
    fields.fill(typed as never);
  });
  const v = fields.values;
  const nameOf = (id: string) =>
    [...shelf.waxes, ...shelf.fragrances, ...shelf.additives, ...shelf.dyes].find((one) => one.id === id)?.name ?? "something no longer on the shelf";

  const basis = v.basis ?? "wax";
  // What a dye's dose is counted in, and the basis, say how other fields are to be read.
  const doses = Object.fromEntries(rows.filter((row) => row.kind === "dye").map((row) => [row.key, fields.text(`${row.key}:by`) as DyeDose]));
  if (now.basis !== basis || JSON.stringify(now.doses) !== JSON.stringify(doses)) setNow({ basis, doses });
  const parts = partsFrom(rows, v as Record<string, unknown>);
  const family = materialsOf(parts, shelf).named[0]?.family ?? "";
  const loadFits = v.load !== undefined && v.load <= LARGEST_LOAD_PERCENT[basis] * 10_000;
  const mix = mixOf(parts, shelf);
  // With an additive the load is stated alike here, in the plan and in the record.
  const ofWax = loadFits && v.load !== undefined ? loadOfWax({ basis, loadPpm: v.load }, mix) : null;
  const ofTotal = loadFits && v.load !== undefined ? loadOfTotal({ basis, loadPpm: v.load }, mix) : null;
  const drafts = processSchema.safeParse(processFromFields(process, v as Record<string, unknown>));
  const found = disagreements(
    { ...parts, basis, loadPpm: loadFits ? v.load : undefined, process: drafts.success ? drafts.data : undefined },
    shelf,
    units.temperature,
  );
  const limit = limitsOf(parts, shelf)[0];
  /** What it is made of, from so large a total that no step of a scale shows. */
  const sampleOf = () => {
    if (!loadFits || v.load === undefined || parts.waxes.length === 0) return null;
    const scaled = weighOut({
      basis,
      loadPpm: v.load,
      maxLoadPpm: null,
      vessels: [],
      start: { totalMg: 1_000_000_000 },
      sparePpm: 0,
      resolutionUg: 1_000,
      ...sharesOf(mix),
    });
    return mixComponents(scaled, mix);
  };
  const sample = sampleOf();

  const specFrom = (all: typeof rules extends infer R ? { [K in keyof R]: unknown } : never) =>
    formulaSpec.safeParse({
      ...partsFrom(rows, all as Record<string, unknown>),
      basis: all.basis,
      loadPpm: all.load,
      notes: all.notes,
      process: processFromFields(process, all as Record<string, unknown>),
    });
  const firstOf = (kind: PartKind) => `${rows.find((row) => row.kind === kind)?.key}:id`;
  const FIELD_OF: Record<string, string> = {
    loadPpm: "load",
    fragrances: firstOf("fragrance"),
    waxes: firstOf("wax"),
    parts: firstOf("wax"),
    wax: firstOf("wax"),
    fragrance: firstOf("fragrance"),
    dye: firstOf("dye"),
    additive: firstOf("additive"),
  };
  const specNow = (): FormulaSpec | null => {
    const all = fields.check();
    if (!all) return null;
    const parsed = specFrom(all);
    if (parsed.success) return parsed.data;
    fields.refuse(Object.fromEntries(parsed.error.issues.map((issue) => [FIELD_OF[String(issue.path[0])] ?? String(issue.path.at(-1)), [issue.message]])));
    return null;
  };
  const drafted = specFrom(v as never);

  const save = (over: number | null) => {
    const spec = specNow();
    if (!spec) return setSaid(null);
    start(async () => {
      const outcome = await ask(saveFormula(place, { id: formula?.id ?? null, freshId, expectedVersion: over, name: fields.values.name, spec }));
      if (!outcome.ok) {
        fields.refuse(Object.fromEntries(Object.entries(outcome.fields).map(([name, messages]) => [FIELD_OF[name] ?? name, messages])));
        return setSaid({ tone: "bad", text: outcome.message });
      }
      if (outcome.value.stale) {
        setSaid(null);
        return setStale(outcome.value.stale);
      }
      setStale(null);
      draft.drop();
      const again = outcome.value.due.length > 0 ? ` Test the wick again of ${outcome.value.due.join(", ")}.` : "";
      setExpected(outcome.value.version);
      setBase(spec);
      setSaid({
        tone: "good",
        text: outcome.value.next
          ? `Saved as version ${outcome.value.number}: the one before has been used, so it stays as it was.${again}`
          : `Saved, version ${outcome.value.number}.${again}`,
      });
      if (formula) router.refresh();
      else router.push(`/formulas/${outcome.value.id}`);
    });
  };

  const take = (next: Process) => {
    setProcess(next);
    fields.fill(processTexts(next, units) as never);
  };
  /** Other materials bring the process, the load and the dose that are usual for them, unless the maker has made these their own. */
  const follow = (rowsNow: PartRow[], changed: Record<string, string> = {}) => {
    const known = Object.fromEntries(
      rowsNow.flatMap((row) => [
        [`${row.key}:id`, row.id],
        [`${row.key}:share`, Number(row.share)],
      ]),
    );
    const { waxes, fragrances } = partsFrom(rowsNow, { ...known, ...(v as Record<string, unknown>), ...changed });
    const next = suggestFormula({ waxes, fragrances }, shelf, units.temperature);
    const isReady = READY_PROCESSES.some((ready) => ready.name === fields.text("processName" as never));
    const isAsItCame = Object.entries(processTexts(process, units)).every(([name, text]) => fields.text(name as never) === text);
    if (isReady && isAsItCame && (!formula || process.name !== next.process.name)) take(next.process);
    if (!formula && fields.text("load") === loadText(suggested.loadPpm)) fields.set("load", loadText(next.loadPpm));
    setSuggested(next);
  };
  const dyeKind = (id: string | undefined) => shelf.dyes.find((one) => one.id === id)?.kind ?? "liquid";
  const choose = (kind: PartKind, key: string, id: string) => {
    const doseOf = (additive: string) => writeNumber(suggestedDose(shelf.additives.find((one) => one.id === additive)) / 10_000, 4);
    if (kind === "additive" && fields.text(`${key}:share` as never) === doseOf(fields.text(`${key}:id` as never)))
      fields.set(`${key}:share` as never, doseOf(id));
    if (kind === "dye") {
      // Chips and blocks are counted in pieces, whatever stood here before.
      const [before, next] = [firstDose(dyeKind(fields.text(`${key}:id` as never))), firstDose(dyeKind(id))];
      if (fields.text(`${key}:by` as never) === before.by && before.by !== next.by) {
        fields.set(`${key}:by` as never, next.by);
        fields.set(`${key}:share` as never, writeNumber(next.amount, 4));
      }
    }
    fields.set(`${key}:id` as never, id);
    follow(rows, { [`${key}:id`]: id });
  };
  const add = (kind: PartKind) => {
    const list: readonly { id: string }[] = { wax: shelf.waxes, fragrance: shelf.fragrances, additive: shelf.additives, dye: shelf.dyes }[kind];
    const free = list.find((one) => !rows.some((row) => fields.text(`${row.key}:id`) === one.id));
    const key = `${kind}:${rows.reduce((most, row) => Math.max(most, Number(row.key.split(":")[1])), 0) + 1}`;
    const dose =
      kind === "additive"
        ? writeNumber(suggestedDose(shelf.additives.find((one) => one.id === free?.id)) / 10_000, 4)
        : kind === "dye"
          ? writeNumber(firstDose(dyeKind(free?.id)).amount, 4)
          : "1";
    const all: PartRow[] = [...rows, { kind, key, id: free?.id ?? "", share: dose, by: kind === "dye" ? firstDose(dyeKind(free?.id)).by : "drops" }];
    setRows(all);
    follow(all);
  };
  const drop = (key: string) => {
    const all = rows.filter((row) => row.key !== key);
    setRows(all);
    follow(all);
  };
  /** The dyes of a colour take the place of those that stand here. */
  const takeColour = (dyes: DyePart[]) => {
    known.look();
    const from = rows.reduce((most, row) => Math.max(most, Number(row.key.split(":")[1])), 0) + 1;
    const fresh = dyes.map((one, at): PartRow => ({ kind: "dye", key: `dye:${from + at}`, id: one.id, share: writeNumber(one.amount, 4), by: one.by }));
    setRows((old) => [...old.filter((row) => row.kind !== "dye"), ...fresh]);
  };
  return (
    <Screen
      title={formula ? formula.name : "New formula"}
      lead={
        newest
          ? `Version ${newest.number}${newest.batches > 0 ? `, used in ${newest.batches} ${newest.batches === 1 ? "batch" : "batches"}: a change makes version ${newest.number + 1}` : ", not used yet"}`
          : "What goes in, how much of it, and how the wax is worked."
      }
      actions={
        <>
          {formula ? (
            <>
              <Link className="press" href={`/sell/hazard?formula=${formula.id}`}>
                Hazard label
              </Link>
              <Link className="press" href={`/plan?formula=${formula.id}`}>
                Plan a batch from it
              </Link>
            </>
          ) : null}
          <button type="submit" form="formula-form" className="act" data-next-step disabled={busy}>
            {busy ? "Saving" : "Save the formula"}
          </button>
          {said ? (
            <p role="status" className={`w-full font-semibold sm:text-right ${said.tone === "good" ? "text-inside" : "text-hot"}`}>
              {said.tone === "good" ? "✓ " : "▲ "}
              {said.text}
            </p>
          ) : null}
        </>
      }
      side={
        <>
          {draft.offer}
          {found.map((one) =>
            one.weight === "stop" ? (
              <Caution key={one.code} title="Not in gel">
                {units.say(one.message)}
              </Caution>
            ) : one.weight === "warn" ? (
              <Warn key={one.message}>{units.say(one.message)}</Warn>
            ) : (
              <Aside key={one.message} title={INFORM[one.code] ?? "To know"}>
                {units.say(one.message)}
              </Aside>
            ),
          )}
          <Aside title="Which 10 %?">
            Of the wax: 100 g of wax and 10 g of fragrance. Of the total: 90 g and 10 g. Most suppliers mean the wax. Both are always shown here.
          </Aside>
          {process.reason ? <Aside title={`Why ${process.name}`}>{process.reason} The supplier's sheet comes first.</Aside> : null}
          <Caution title="Hot wax">
            Keep under {drafts.success ? units.t(drafts.data.ceiling) : "the ceiling"} and never leave it. Smother a wax fire; never use water.
          </Caution>
        </>
      }
    >
      <form
        id="formula-form"
        ref={fields.form}
        onSubmit={(event) => {
          event.preventDefault();
          save(expected);
        }}
      >
        <div className="grid grid-cols-1 gap-6 xl:grid-cols-2">
          <section className="sheet">
            <h2 className="mb-2">What goes in</h2>
            <div className="grid gap-2">
              <Field label="Name" {...fields.bind("name")} />
              <PartRows
                rows={rows}
                shelf={shelf}
                stocks={stocks}
                lately={lately}
                fields={fields as never}
                family={family}
                onLook={known.look}
                onNew={(kind, key, name) => setAdding({ kind, key, name })}
                onChoose={choose}
                onAdd={add}
                onDrop={drop}
              />
              <Colours
                colours={props.colours}
                wax={parts.waxes[0]?.id ?? ""}
                scent={parts.fragrances[0]?.id ?? ""}
                dyes={parts.dyes ?? []}
                nameOf={nameOf}
                onTake={takeColour}
              />
              <div className="grid grid-cols-[1fr_1.2fr] gap-4">
                <Field
                  label="Load"
                  unit="%"
                  {...fields.bind("load")}
                  large
                  inputMode="decimal"
                  hint={
                    limit
                      ? `${limit.name}: up to ${units.percent(limit.ppm)} of the wax${limit.parts ? `, from ${units.say(writeLimitParts(limit))}` : ""}.`
                      : "Or per weight: 1 oz/lb, 80 g/kg."
                  }
                />
                <Field
                  label="is a share"
                  {...fields.bind("basis")}
                  options={[
                    { value: "wax", label: "of the wax" },
                    { value: "total", label: "of the total" },
                  ]}
                />
              </div>
              <p aria-live="polite" className="bg-paper px-3 py-2">
                {ofWax === null || ofTotal === null ? (
                  "Type a load to see both readings."
                ) : (
                  <>
                    <span className="figure text-[26px]">{units.percent(ofWax)}</span> of the wax ={" "}
                    <span className="figure text-[26px]">{units.percent(ofTotal)}</span> of the total
                    <span className="block text-[15px] text-soft">
                      {writePerWeight(ofWax, "oz")}, {writePerWeight(ofWax, "g")}
                    </span>
                  </>
                )}
              </p>
              {sample ? <PotStrip parts={sample} /> : null}
            </div>
          </section>
          <ProcessPart
            process={process}
            bands={drafts.success ? bandsOf(drafts.data) : bandsOf(process)}
            ceiling={drafts.success ? drafts.data.ceiling : process.ceiling}
            own={props.processes}
            family={family}
            fields={fields as never}
            onTake={take}
          />
        </div>
        {stale ? (
          <section role="alert" className={notice({ className: "my-3" })}>
            <h3>{stale.by ?? "Somebody"} saved this formula in the meantime. Your typing is kept; nothing was written.</h3>
            <ul className="my-2 list-disc pl-5">
              {(base ? difference(base, stale.spec, nameOf, units.temperature) : []).map((change) => (
                <li key={change.what}>
                  {change.what}: {change.from} → {change.to}
                </li>
              ))}
            </ul>
            <div className="flex flex-wrap gap-3">
              <button type="button" className="press" onClick={() => save(stale.version)}>
                Save mine over it
              </button>
              <button type="button" className="press" onClick={() => location.reload()}>
                Drop mine and load theirs
              </button>
            </div>
          </section>
        ) : null}
      </form>
      {adding ? (
        <AddBeside
          kind={adding.kind}
          name={adding.name}
          waxes={shelf.waxes}
          onDone={() => setAdding(null)}
          onMade={async (id) => {
            await known.again();
            choose(adding.kind, adding.key, id);
            setAdding(null);
          }}
        />
      ) : null}
      {drafted.success ? <Reach spec={drafted.data} shelf={shelf} stocks={stocks} /> : null}
      {props.notes}
      <Versions versions={versions} nameOf={nameOf} />
    </Screen>
  );
}
