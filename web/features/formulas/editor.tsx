"use client";

import { bandsOf, blendVerdict, difference, formulaFaults, mixingVerdict } from "@hearth/core";
import { useState } from "react";
import { AddBeside } from "@/catalogue/add-beside";
import { Link } from "@/ui/address";
import { Aside, Caution, HotWaxCaution, PageLayout, Warn } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";
import type { PartKind } from "./editor-fields";
import { ProcessPart } from "./process-part";
import { StockLimits } from "./stock-limits";
import { type FormulaProps, type FormulaState, type Saving, useFormula, useParts, useSaving } from "./use-formula";
import { Versions } from "./versions";
import { WhatGoesIn } from "./what-goes-in";

/** What a remark that only informs is headed with. */
const INFORM: Record<string, string> = {
  "above-flash-point": "Flash point",
  "limit-unknown": "Maximum fragrance load not known",
  "load-above-usual": "Above the usual load",
  "family-unsuited": "Another wax than usual",
};

/** Asks for the tests that are made before any wax is melted: of a new blend of oils, and of an oil that goes into gel. */
function TestsBeforeWax({ state: { draft, known }, tests }: { state: FormulaState; tests: FormulaProps["oilTests"] }) {
  const oils = draft.parts.fragrances.flatMap((part) => known.shelf.fragrances.find((oil) => oil.id === part.id) ?? []);
  const blend = blendVerdict(
    tests,
    oils.map((oil) => oil.id),
  );
  const open = draft.family === "gel" ? oils.filter((oil) => mixingVerdict(tests, oil.id) !== "good") : [];
  const first = oils[0];
  return (
    <>
      {first && oils.length > 1 && blend !== "good" ? (
        <Aside title={blend === "bad" ? "This blend was not good on a swab" : "A new blend: try it in drops first"}>
          A few drops of each on swabs, shut in a bag for a day, tell whether {oils.map((oil) => oil.name).join(" and ")} suit each other.{" "}
          <Link href={`/shelf/fragrance/${first.id}#tests`}>Record the test</Link>
        </Aside>
      ) : null}
      {open.map((oil) => (
        <Warn key={oil.id}>
          {mixingVerdict(tests, oil.id) === "bad" ? `${oil.name} clouded in its mixing test.` : `${oil.name} has no mixing test for gel yet.`} Three parts of
          mineral oil to one of it: tiny droplets mean a cloudy candle. <Link href={`/shelf/fragrance/${oil.id}#tests`}>Record the test</Link>
        </Warn>
      ))}
    </>
  );
}

/** What formula, process and shelf disagree on, and what to keep in mind. */
function FormulaMargin({ state, tests }: { state: FormulaState; tests: FormulaProps["oilTests"] }) {
  const units = useUnits();
  const { draft, process } = state;
  return (
    <>
      <TestsBeforeWax state={state} tests={tests} />
      {draft.found.map((disagreement) =>
        disagreement.weight === "stop" ? (
          <Caution key={disagreement.code} title="Not in gel">
            {units.say(disagreement.message)}
          </Caution>
        ) : disagreement.weight === "warn" ? (
          <Warn key={disagreement.message}>{units.say(disagreement.message)}</Warn>
        ) : (
          <Aside key={disagreement.message} title={INFORM[disagreement.code] ?? "Notes"}>
            {units.say(disagreement.message)}
          </Aside>
        ),
      )}
      <Aside title="Percent of the wax or of the total?">
        {units.say(
          "10 % of the wax is {100 g|10 oz} of wax and {10 g|1 oz} of fragrance. 10 % of the total is {90 g|9 oz} of wax and {10 g|1 oz} of fragrance. Most suppliers mean the wax. Both are always shown here.",
        )}
      </Aside>
      {process.reason ? <Aside title={`Why ${process.name}`}>{process.reason} The supplier's data comes first.</Aside> : null}
      <HotWaxCaution />
    </>
  );
}

/** The ways on from a formula, its saving, and what became of that. */
function FormulaActions({ state: { formula }, saving: { busy, message } }: { state: FormulaState; saving: Saving }) {
  return (
    <>
      {formula ? (
        <>
          <Link className="press" href={`/formulas/${formula.id}/card`}>
            Recipe card
          </Link>
          <Link className="press" href={`/sell/hazard?formula=${formula.id}`}>
            Hazard label
          </Link>
          <Link className="press" href={`/plan?formula=${formula.id}`}>
            Plan a batch from it
          </Link>
        </>
      ) : null}
      <button type="submit" form="formula-form" className="action-button" data-next-step disabled={busy}>
        {busy ? "Saving" : "Save the formula"}
      </button>
      {message ? (
        <p role="status" className={`w-full font-semibold sm:text-right ${message.tone === "good" ? "text-inside" : "text-hot"}`}>
          {message.tone === "good" ? "✓ " : "▲ "}
          {message.text}
        </p>
      ) : null}
    </>
  );
}

/** What somebody else saved while this was typed, and which of the two stays. */
function SavedMeanwhile({ saving: { stale, base, saveOver }, nameOf }: { saving: Saving; nameOf: (id: string) => string }) {
  const units = useUnits();
  if (!stale) return null;
  return (
    <section role="alert" className={notice({ className: "my-3" })}>
      <h3>{stale.by ?? "Somebody"} saved a newer version while you were editing. Your typing is kept, and nothing was saved.</h3>
      <ul className="my-2 list-disc pl-5">
        {(base ? difference(base, stale.spec, nameOf, units) : []).map((change) => (
          <li key={change.what}>
            {change.what}: {change.from} → {change.to}
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-3">
        <button type="button" className="press" onClick={saveOver}>
          Overwrite with mine
        </button>
        <button type="button" className="press" onClick={() => location.reload()}>
          Discard mine
        </button>
      </div>
    </section>
  );
}

/** Returns what is said of the newest version, and what a change will make of it. */
function leadOf({ newest }: FormulaState): string {
  if (!newest) return "Ingredients, amounts and process.";
  const used = `used in ${newest.batches} ${newest.batches === 1 ? "batch" : "batches"}: changes save as version ${newest.number + 1}`;
  return `Version ${newest.number}, ${newest.batches > 0 ? used : "not used yet"}`;
}

/** Makes or changes a formula: what goes in, how it is worked, what the two and the shelf disagree on. */
export function FormulaEditor(props: FormulaProps) {
  const state = useFormula(props);
  const parts = useParts(state);
  const saving = useSaving(state);
  const [adding, setAdding] = useState<{ kind: PartKind; key: string; name: string } | null>(null);
  const { formula, fields, known, draft, process, nameOf } = state;
  const worked = draft.process ?? process;
  const drafted = state.specFrom(fields.values);
  return (
    <PageLayout
      title={formula ? formula.name : "New formula"}
      lead={leadOf(state)}
      actions={<FormulaActions state={state} saving={saving} />}
      side={
        <>
          {state.kept.offer}
          <FormulaMargin state={state} tests={props.oilTests} />
        </>
      }
    >
      <form
        id="formula-form"
        ref={fields.form}
        onSubmit={(event) => {
          event.preventDefault();
          saving.save();
        }}
      >
        <div className="grid grid-cols-1 gap-6 xl:grid-cols-2">
          <WhatGoesIn state={state} parts={parts} colors={props.colors} onNew={(kind, key, name) => setAdding({ kind, key, name })} />
          <ProcessPart
            process={process}
            bands={bandsOf(worked)}
            ceiling={worked.ceiling}
            own={props.processes}
            family={draft.family}
            fields={fields as never}
            onTake={state.take}
          />
        </div>
        <SavedMeanwhile saving={saving} nameOf={nameOf} />
      </form>
      {adding ? (
        <AddBeside
          kind={adding.kind}
          name={adding.name}
          waxes={known.shelf.waxes}
          onDone={() => setAdding(null)}
          onMade={async (id) => {
            await known.again();
            parts.choose(adding.kind, adding.key, id);
            setAdding(null);
          }}
        />
      ) : null}
      {drafted && drafted.waxes.length > 0 && formulaFaults(drafted).length === 0 ? (
        <StockLimits spec={drafted} shelf={known.shelf} stocks={known.stocks} />
      ) : null}
      {props.notes}
      <Versions versions={props.versions} nameOf={nameOf} />
    </PageLayout>
  );
}
