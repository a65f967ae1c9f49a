"use client";

import { CLP, LANGUAGE_NAMES, LANGUAGES, type Language, type MixHazard, type MixPart, type Sellable, wordsOf } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { callAction } from "@/forms/call-action";
import { Chooser } from "@/forms/chooser";
import { Field, useFields, words } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { saveLabelling } from "@/server/sales/commands";
import type { LabelSettings } from "@/server/sales/label-settings";
import { Link, useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { HazardSign } from "@/ui/hazard-sign";
import { Aside, Caution, PageLayout, Warn } from "@/ui/side-notes";
import { toast } from "@/ui/toast";
import { useUnits } from "@/ui/units";
import { WideTable } from "@/ui/wide-table";

type Of = { kind: "formula" | "batch"; id: string; name: string };

interface HazardViewProps {
  of: Of | null;
  hazard: MixHazard | null;
  /** On the recipe's own basis; of a formula alone. */
  loads: { class: string; loadPpm: number | null }[];
  load: { ppm: number; basis: "wax" | "total" } | null;
  /** Of a batch: what nobody weighed, so that the plan stands in. */
  planned: string[];
  /** Batches of the formula lately, with the classes that their real load came to. */
  batches: { id: string; number: number; fragrance: number; classes: string[]; crosses: boolean }[];
  settings: LabelSettings;
  version: number;
  formulas: { id: string; name: string }[];
  products: Pick<Sellable, "id" | "name">[];
}

function LabelCard({ hazard, language }: { hazard: MixHazard; language: Language }) {
  const words = wordsOf(
    hazard.answer,
    language,
    hazard.without.map((mixPart) => mixPart.name),
  );
  return (
    <section className="border-[3px] border-ink bg-sheet p-4" aria-label="Draft of the label" lang={language}>
      <p className="mb-2 font-bold text-safety">{words.draft}</p>
      <div className="flex flex-wrap items-center gap-4">
        {words.pictograms.map((code) => (
          <HazardSign key={code} code={code} size={96} />
        ))}
        {words.signal ? <span className="figure text-[34px]">{words.signal}</span> : null}
      </div>
      {words.contains ? <p className="mt-2">{words.contains}</p> : null}
      {[...words.h, ...words.euh].map((text) => (
        <p key={text} className="mt-1 text-[18px] font-semibold">
          {text}
        </p>
      ))}
      {words.p.length > 0 ? <p className="mt-2 text-[15px]">{words.p.join(" ")}</p> : null}
      {words.rests ? <p className="mt-2 border-l-[6px] border-hot bg-hot-fill px-3 py-1 font-semibold">▲ {words.rests}</p> : null}
    </section>
  );
}

function Parts({ parts, hazard }: { parts: readonly MixPart[]; hazard: MixHazard }) {
  const units = useUnits();
  return (
    <WideTable label="Composition" least={420} heads={["in the candle", "of", "supplier's sheet"]}>
      {parts.map((part) => (
        <tr key={part.id} className="border-t border-line align-baseline">
          <td className="figure py-1 pr-4 text-[19px]">{units.n(part.percent, 3)} %</td>
          <td className="pr-4">
            {part.name} <span className="text-soft">{part.kind}</span>
          </td>
          <td>
            {hazard.without.some((other) => other.id === part.id) ? (
              <Link className="font-semibold text-hot underline" href={`/shelf/${part.kind}/${part.id}`}>
                ▲ none: add it
              </Link>
            ) : (
              <Link className="underline" href={`/shelf/${part.kind}/${part.id}`} aria-label={`✓ here: sheet of ${part.name}`}>
                ✓ here
              </Link>
            )}
          </td>
        </tr>
      ))}
    </WideTable>
  );
}

/** Saves the workshop's label settings with a change. */
function useSaveSettings(settings: LabelSettings, version: number) {
  const workshop = useWorkshop();
  const router = useRouter();
  const [errorMessage, setMessage] = useState("");
  const [busy, start] = useTransition();
  const save = (change: Partial<LabelSettings>, done: string, refuse?: (message: string) => void) =>
    start(async () => {
      const outcome = await callAction(saveLabelling(workshop, { version, settings: { ...settings, ...change } }));
      if (!outcome.ok) {
        const [message] = Object.values(outcome.fields).flat();
        return refuse && message ? refuse(message) : setMessage(message ?? outcome.message);
      }
      setMessage("");
      toast(done);
      router.refresh();
    });
  return { errorMessage, busy, save };
}

/** Whether small shares are left out, and what that would change. */
function CutOffs({ answer, settings, version }: { answer: MixHazard["answer"]; settings: LabelSettings; version: number }) {
  const { errorMessage, busy, save } = useSaveSettings(settings, version);
  const used = answer.cut_offs;
  const other = answer.otherwise;
  return (
    <Aside title={used ? "Small shares are left out" : "Small shares count too"}>
      The regulation lets ingredients below its cut-off values (annex I, table 1.1) be left out.{" "}
      {used ? "That is chosen, for all labels." : "Here all of them count, which is cautious."}{" "}
      {other === null
        ? "For this candle it makes no difference."
        : `With the other choice this label would have ${[...other.classes, ...other.euh].join(", ") || "no class"}.`}
      <button
        type="button"
        className="press mt-2"
        disabled={busy}
        onClick={() => save({ cutOffs: !used }, used ? "Small shares count on all labels." : "Small shares are left out on all labels.")}
      >
        {used ? "Count them all" : "Leave them out"}
      </button>
      <FormMessage>{errorMessage}</FormMessage>
    </Aside>
  );
}

/** The unique formula identifier that stands on the labels of a formula. */
function Ufi({ formulaId, settings, version }: { formulaId: string; settings: LabelSettings; version: number }) {
  const { errorMessage, busy, save } = useSaveSettings(settings, version);
  const kept = settings.ufis[formulaId] ?? "";
  const rules = useMemo(() => ({ ufi: words(kept, 24) }), [kept]);
  const fields = useFields(rules);
  const put = () => {
    const all = fields.check();
    if (!all) return;
    const { [formulaId]: _old, ...others } = settings.ufis;
    save({ ufis: all.ufi === "" ? others : { ...others, [formulaId]: all.ufi } }, "The UFI is on its labels.", (message) => fields.refuse({ ufi: [message] }));
  };
  return (
    <form
      ref={fields.form}
      className="mt-4 flex flex-wrap items-start gap-x-3"
      onSubmit={(event) => {
        event.preventDefault();
        put();
      }}
    >
      <div className="w-[260px]">
        <Field label="UFI" {...fields.bind("ufi")} hint="For a mixture classified for health: the code under which it is notified." />
      </div>
      <button type="submit" className="press mt-[27px]" disabled={busy}>
        Keep it
      </button>
      <FormMessage>{errorMessage}</FormMessage>
    </form>
  );
}

/** The largest load at which each class would not be met. */
function LoadsWithout({ load, loads }: Pick<HazardViewProps, "load" | "loads">) {
  const units = useUnits();
  return load && loads.length > 0 ? (
    <section aria-label="Maximum load without each class" className="mb-5">
      <h2 className="border-b-[3px] border-ink pb-1">Maximum load without it</h2>
      <p className="py-2 text-soft">
        This formula has <span className="figure text-[22px] text-ink">{units.percent(load.ppm)}</span> of the {load.basis}.
      </p>
      {loads.map((load) => (
        <p key={load.class} className="flex items-baseline justify-between gap-3 border-b border-line py-1">
          <span>without {load.class}</span>
          <span className="figure text-[26px]">{load.loadPpm === null ? "no load avoids it" : units.percent(load.loadPpm)}</span>
        </p>
      ))}
    </section>
  ) : null;
}

/** What has to be looked up or spelled alike before the label can be trusted. */
function Missing({ hazard }: { hazard: NonNullable<HazardViewProps["hazard"]> }) {
  const missing = [
    ...hazard.answer.alike.map(
      ([a, b]) => `“${a}” and “${b}”: are they one substance? Then spell them alike, or give both the same CAS number. If not, give each its own.`,
    ),
    ...hazard.answer.missing,
    ...hazard.unread.map((text) => `${text} is not calculated here`),
  ];
  return missing.length > 0 ? (
    <section className="mt-6" aria-label="What is missing">
      <h2 className="border-b-[3px] border-ink pb-1">What is missing</h2>
      <ul>
        {missing.map((text) => (
          <li key={text} className="border-b border-line py-1">
            {text}
          </li>
        ))}
      </ul>
    </section>
  ) : null;
}

/** Each class with the sum that is compared with its limit. */
function Working({ hazard }: { hazard: NonNullable<HazardViewProps["hazard"]> }) {
  const units = useUnits();
  return (
    <section className="mt-6" aria-label="Working">
      <h2 className="border-b-[3px] border-ink pb-1">Each class and its sum</h2>
      {hazard.answer.working.length === 0 ? <p className="py-2 text-soft">No sheet lists a classified ingredient.</p> : null}
      <WideTable label="Sums" least={620} heads={["met", "rule", "comes to", "limit", "from"]}>
        {hazard.answer.working.map((item) => (
          <tr key={item.rule} className="border-t border-line align-baseline">
            <td className="py-1 pr-3 font-bold">{item.met ? <span className="text-hot">▲ applies</span> : <span className="text-soft">not met</span>}</td>
            <td className="pr-4">{item.rule}</td>
            <td className="figure pr-4">{units.n(item.value, 4)}</td>
            <td className="figure pr-4">{units.n(item.limit, 4)}</td>
            <td className="text-[15px]">{item.from.join(", ")}</td>
          </tr>
        ))}
      </WideTable>
    </section>
  );
}

/** The batches of a formula as they were weighed, and whether one crosses into another label. */
function Batches({ batches }: Pick<HazardViewProps, "batches">) {
  const units = useUnits();
  return batches.length > 0 ? (
    <section className="mt-6" aria-label="Batches of it">
      <h2 className="border-b-[3px] border-ink pb-1">Batches as they were weighed</h2>
      <ul>
        {batches.map((batch) => (
          <li key={batch.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-1">
            <Link className="font-bold underline" href={`/sell/hazard?batch=${batch.id}`}>
              batch {batch.number}
            </Link>
            <span>{units.n(batch.fragrance, 2)} % scent in the candle</span>
            <span className={batch.crosses ? "font-bold text-hot" : "text-soft"}>
              {batch.crosses ? "▲ another label: " : ""}
              {batch.classes.join(", ") || "not classified"}
            </span>
          </li>
        ))}
      </ul>
    </section>
  ) : null;
}

/** The languages that a label can be read in. */
function Languages({ language, onLanguage }: { language: Language; onLanguage: (language: Language) => void }) {
  return (
    <p className="mb-2 flex gap-2">
      {LANGUAGES.map((item) => (
        <button
          key={item}
          type="button"
          className="press aria-pressed:bg-ink aria-pressed:text-sheet"
          aria-pressed={item === language}
          onClick={() => onLanguage(item)}
        >
          {LANGUAGE_NAMES[item]}
        </button>
      ))}
    </p>
  );
}

/** The hazard label of a candle as it is blended: a draft, each class open to its sum, and the load that would be free of it. */
export function HazardView({ of, hazard, loads, load, planned, batches, settings, version, formulas, products }: HazardViewProps) {
  const units = useUnits();
  const router = useRouter();
  const [language, setLanguage] = useState<Language>("en");
  return (
    <PageLayout
      title={of ? `Hazard label: ${of.name}` : "Hazard label"}
      lead={of?.kind === "batch" ? "As it was weighed." : "For the mixture as blended, from the suppliers' safety data sheets."}
      actions={
        of ? (
          <Link className="press" href={of.kind === "batch" ? `/records/${of.id}` : `/formulas/${of.id}`}>
            {of.kind === "batch" ? "To the record" : "To the formula"}
          </Link>
        ) : undefined
      }
      side={
        <>
          <Caution title="A draft">
            Have it checked by a competent person before it is printed for sale. Rules differ by country, and change; the supplier’s own sheet for your load
            comes first.
          </Caution>
          {planned.length > 0 ? <Warn>Not weighed, so the plan is used: {planned.join(", ")}.</Warn> : null}
          <Aside title="The rules">
            {CLP.name}: {CLP.source}. For {CLP.where}. As of {units.onDate(CLP.asOf)}.
          </Aside>
          {hazard ? <CutOffs answer={hazard.answer} settings={settings} version={version} /> : null}
          <Aside title="Ranges use the highest value">If a sheet says 10 to 25 %, 25 % is used. An ingredient of two oils is added up.</Aside>
        </>
      }
    >
      <div className="mb-4 grid gap-x-4 sm:grid-cols-2">
        <Chooser
          label="Formula"
          value={of?.kind === "formula" ? of.id : ""}
          options={formulas.map((formula) => ({ value: formula.id, name: formula.name }))}
          onValue={(id) => router.push(`/sell/hazard?formula=${id}`)}
        />
        <Chooser
          label="Or the formula of a product"
          value=""
          options={products.map((product) => ({ value: product.id, name: product.name }))}
          onValue={(id) => router.push(`/sell/hazard?product=${id}`)}
        />
      </div>
      {hazard && of ? (
        <>
          <div className="grid grid-cols-1 gap-6 lg:grid-cols-2">
            <div>
              <Languages language={language} onLanguage={setLanguage} />
              <LabelCard hazard={hazard} language={language} />
              {of.kind === "formula" ? <Ufi key={`${of.id} ${version}`} formulaId={of.id} settings={settings} version={version} /> : null}
            </div>
            <div>
              <LoadsWithout load={load} loads={loads} />
              <h2 className="border-b-[3px] border-ink pb-1">Composition</h2>
              <Parts parts={hazard.parts} hazard={hazard} />
            </div>
          </div>
          <Missing hazard={hazard} />
          <Working hazard={hazard} />
          <Batches batches={batches} />
        </>
      ) : (
        <p className="text-soft">Choose a formula or a product. Its suppliers' safety data sheets are used at its load.</p>
      )}
    </PageLayout>
  );
}
