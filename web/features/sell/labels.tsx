"use client";

import { HAZARD_SIZES, LANGUAGE_NAMES, LANGUAGES, type Language, perSheet, testSquareUm } from "@hearth/core";
import { useMemo, useState } from "react";
import { Chooser } from "@/forms/chooser";
import { Field, useFields } from "@/forms/fields";
import { countRule } from "@/forms/rules";
import { useWorkshop } from "@/log/workshop";
import type { KeptLabelSheet, LabelSettings } from "@/server/sales/label-settings";
import { Link, useRouter } from "@/ui/address";
import { lazy } from "@/ui/lazy";
import { Aside, Caution, PageLayout, Warn } from "@/ui/side-notes";
import { Toggle } from "@/ui/toggle";
import { useUnits } from "@/ui/units";
import { OwnWords } from "./own-words";

const SheetEditor = lazy(async () => (await import("./sheet-editor")).SheetEditor);

const KINDS = [
  { id: "safety", says: "Fire safety", why: "On every candle: the four warnings, and those of its container." },
  { id: "scent", says: "Scent", why: "Name, wax, net weight, batch: lid or front." },
  { id: "hazard", says: "Hazard", why: "For the mixture as blended: a draft to be checked." },
  { id: "net", says: "Net weight", why: "In both systems, rounded down, in the height that the rules require." },
  { id: "care", says: "Care card", why: "First burn, trimming, how long it burns." },
  { id: "buyer", says: "Code", why: "A QR code that opens a page about the candle for the buyer." },
] as const;
type Kind = (typeof KINDS)[number]["id"];

interface Of {
  productId: string;
  name: string;
  batchId: string | null;
  number: number | null;
  /** Pieces, for a start. */
  pieces: number;
  pack: number;
}

interface LabelsProps {
  /** What labels can be made for: products of a packing, or of a batch, or all of them. */
  choices: Of[];
  chosen: string;
  sheets: KeptLabelSheet[];
  settings: LabelSettings;
  version: number;
  paper: "a4" | "letter";
  /** Of what is chosen: materials without a sheet, and test candles whose burns the burn time rests on. */
  facts: { without: string[]; testCandles: number; classes: string[]; ufi: string } | null;
}

const keyOf = (item: Pick<Of, "productId" | "batchId">) => `${item.productId} ${item.batchId ?? ""}`;

/** What is printed: which label of which candle, in which languages, on which sheet, how many. */
function useLabel({ choices, chosen, sheets, paper }: LabelsProps) {
  const of = choices.find((choice) => keyOf(choice) === chosen) ?? choices[0];
  const [kind, setKind] = useState<Kind>("safety");
  const [languages, setLanguages] = useState<Language[]>(["en"]);
  const [sheetId, setSheetId] = useState(
    sheets.find((sheet) => sheet.own && sheet.sheet.paper === paper)?.id ?? sheets.find((sheet) => sheet.sheet.paper === paper)?.id ?? "",
  );
  const [forPack, setForPack] = useState(false);
  const [test, setTest] = useState(false);
  const [measuring, setMeasuring] = useState(false);
  const [small, setSmall] = useState("");
  const sheet = sheets.find((sheet) => sheet.id === sheetId) ?? sheets[0];
  const rules = useMemo(
    () => ({
      count: countRule({ least: 1, most: 2_000, name: "labels" }, String(Math.max(1, of?.pieces ?? 1))),
      from: countRule({ least: 1, most: sheet ? perSheet(sheet.sheet) : 1, name: "places" }, "1"),
    }),
    [of?.pieces, sheet],
  );
  const fields = useFields(rules);
  return {
    ...{ of, kind, languages, sheet, forPack, setForPack, test, setTest, measuring, setMeasuring, small, setSmall, fields, setSheetId },
    /** What is chosen anew is tried anew: it may fit now. */
    choose: {
      kind: (next: Kind) => {
        setKind(next);
        setSmall("");
      },
      language: (item: Language) => {
        setLanguages((now) => (now.includes(item) ? (now.length > 1 ? now.filter((other) => other !== item) : now) : [...now, item]));
        setSmall("");
      },
      sheet: (id: string) => {
        setSheetId(id);
        setSmall("");
      },
    },
  };
}
type LabelState = ReturnType<typeof useLabel>;
/** The same once there is a candle and a sheet. */
type Chosen = LabelState & { of: NonNullable<LabelState["of"]>; sheet: NonNullable<LabelState["sheet"]> };

/** Returns where the label is drawn: as a picture, as PDF, and the page that a buyer sees. */
function addressesOf({ of, kind, languages, sheet, forPack, fields, test }: Chosen, workshopId: string) {
  const query = new URLSearchParams({ product: of.productId, kind, lang: languages.join(","), sheet: sheet.id, of: forPack ? "pack" : "piece" });
  if (of.batchId) query.set("batch", of.batchId);
  const base = `/api/workshops/${workshopId}/labels?${query}`;
  const pdf = `${base}&count=${fields.values.count ?? 1}&from=${fields.values.from ?? 1}${test ? "&test=1" : ""}`;
  const buyers = `/api/workshops/${workshopId}/buyers?product=${of.productId}${of.batchId ? `&batch=${of.batchId}` : ""}&lang=${languages.join(",")}`;
  return { pdf, buyers, picture: `${base}&as=svg` };
}

/** What to heed of this label before it is printed. */
function LabelMargin({
  label: { of, kind, sheet },
  settings,
  facts,
  buyers,
}: {
  label: Chosen;
  settings: LabelsProps["settings"];
  facts: LabelsProps["facts"];
  buyers: string;
}) {
  const units = useUnits();
  const sides = [sheet.sheet.width, sheet.sheet.height].sort((a, b) => a - b);
  const smallLabel = (sides[0] ?? 0) < HAZARD_SIZES.width * 1_000 || (sides[1] ?? 0) < HAZARD_SIZES.height * 1_000;
  return (
    <>
      {kind === "hazard" ? (
        <Caution title="A draft">
          Have it checked by a competent person before it is printed for sale.{" "}
          <Link className="underline" href={of.batchId ? `/sell/hazard?batch=${of.batchId}` : `/sell/hazard?product=${of.productId}`}>
            See its sums
          </Link>
          .
        </Caution>
      ) : (
        <Caution title="Rules differ">Your country's rules and your insurer decide which labels a candle needs, and their wording.</Caution>
      )}
      {facts && facts.without.length > 0 && kind === "hazard" ? <Warn>No supplier’s sheet of {facts.without.join(", ")}: the label says so.</Warn> : null}
      {kind === "hazard" && (settings.address === "" || settings.phone === "") ? (
        <Warn>
          The hazard label wants {[settings.address === "" ? "the address" : "", settings.phone === "" ? "the phone" : ""].filter(Boolean).join(" and ")} of the
          maker.
        </Warn>
      ) : null}
      {kind === "hazard" ? (
        <Aside title="Sizes that the regulation asks for">
          {smallLabel
            ? `If possible the label is ${units.len(HAZARD_SIZES.width * 1_000)} × ${units.len(HAZARD_SIZES.height * 1_000)} or larger; this one is smaller. `
            : `This label is at least ${units.len(HAZARD_SIZES.width * 1_000)} × ${units.len(HAZARD_SIZES.height * 1_000)}. `}
          Each sign is {units.len(HAZARD_SIZES.pictogram * 1_000)} wide where it fits, and never below a fifteenth of the label or {units.len(10_000)}.
          {facts && facts.ufi === "" && facts.classes.some((hazardClass) => !hazardClass.startsWith("Aquatic"))
            ? " No UFI is given: a mixture that is classified for health needs one."
            : ""}
        </Aside>
      ) : null}
      {kind === "care" ? (
        <Aside title="How long it burns">
          {facts && facts.testCandles > 0
            ? `From ${facts.testCandles} ${facts.testCandles === 1 ? "test candle" : "test candles"} of this product: eight of ten candles lie within it.`
            : "No test candle of this product was burned, so the burn time is left out."}
        </Aside>
      ) : null}
      <Aside title="Check the printer first">
        Print one sheet with the test square on plain paper, at 100 %, without “fit to page”. The square measures {units.len(testSquareUm(sheet.sheet))}; the
        outlines lie on your labels.
      </Aside>
      {kind === "buyer" ? (
        <p className="flex flex-col items-start gap-2">
          <a className="press" href={buyers} target="_blank" rel="noreferrer">
            See the page
          </a>
          <a className="press" href={`${buyers}&save=1`} download>
            Save it as one file
          </a>
        </p>
      ) : null}
    </>
  );
}

/** The candle, the label, its languages, its sheet and how many. */
function LabelChoices({ label, choices, sheets }: { label: Chosen; choices: LabelsProps["choices"]; sheets: LabelsProps["sheets"] }) {
  const units = useUnits();
  const router = useRouter();
  const { of, kind, languages, sheet, forPack, setForPack, test, setTest, measuring, setMeasuring, fields, choose, setSheetId } = label;
  const what = KINDS.find((item) => item.id === kind);
  const measured = (id: string | null) => {
    setMeasuring(false);
    if (!id) return;
    setSheetId(id);
    router.refresh();
  };
  return (
    <section className="sheet">
      <Chooser
        label="Product"
        value={keyOf(of)}
        options={choices.map((choice) => ({
          value: keyOf(choice),
          name: choice.number ? `${choice.name}, batch ${choice.number}` : choice.name,
          note: choice.number ? `${choice.pieces} candles` : "no batch",
        }))}
        onValue={(key) => {
          const [product = "", batch = ""] = key.split(" ");
          router.push(`/sell/labels?product=${product}${batch ? `&batch=${batch}` : ""}`);
        }}
      />
      <fieldset className="mt-2">
        <legend className="mb-1 text-[15px] font-semibold">Which label</legend>
        <div className="grid grid-cols-2 gap-1 sm:grid-cols-3">
          {KINDS.map((item) => (
            <Toggle key={item.id} on={item.id === kind} onPress={() => choose.kind(item.id)}>
              {item.says}
            </Toggle>
          ))}
        </div>
        <p className="mt-1 text-[15px] text-soft">{what?.why}</p>
      </fieldset>
      <fieldset className="mt-3">
        <legend className="mb-1 text-[15px] font-semibold">Languages</legend>
        <div className="flex flex-wrap gap-1">
          {LANGUAGES.map((language) => (
            <Toggle key={language} on={languages.includes(language)} onPress={() => choose.language(language)}>
              {LANGUAGE_NAMES[language]}
            </Toggle>
          ))}
        </div>
      </fieldset>
      <div className="mt-3 grid gap-x-4 sm:grid-cols-2">
        <div>
          <label className="mb-1 block text-[15px] font-semibold" htmlFor="label-sheet">
            Sheet of labels
          </label>
          <select id="label-sheet" className="entry" value={sheet.id} onChange={(event) => choose.sheet(event.target.value)}>
            {sheets.map((sheet) => (
              <option key={sheet.id} value={sheet.id}>
                {sheet.name}
              </option>
            ))}
          </select>
          <p className="mt-1 text-[14px] text-soft">
            {sheet.sheet.round ? `round, ${units.len(sheet.sheet.width)}` : `${units.len(sheet.sheet.width)} × ${units.len(sheet.sheet.height)}`},{" "}
            {perSheet(sheet.sheet)} a sheet
          </p>
        </div>
        <div className="flex items-center">
          <button type="button" className="press" aria-expanded={measuring} onClick={() => setMeasuring(!measuring)}>
            Custom sheet
          </button>
        </div>
        <Field label="Labels" {...fields.bind("count")} inputMode="numeric" />
        <Field label="Start at label" {...fields.bind("from")} inputMode="numeric" hint="For a partly used sheet." />
      </div>
      <div className="flex flex-wrap gap-1">
        {of.pack > 1 ? (
          <Toggle on={forPack} onPress={() => setForPack(!forPack)}>
            For the pack of {of.pack}
          </Toggle>
        ) : null}
        <Toggle on={test} onPress={() => setTest(!test)}>
          With test square and outlines
        </Toggle>
      </div>
      {measuring ? <SheetEditor of={sheet} onDone={measured} /> : null}
    </section>
  );
}

/** The label as it is printed, or that it does not fit. */
function AsPrinted({ label: { of, kind, small, setSmall }, picture }: { label: Chosen; picture: string }) {
  const what = KINDS.find((item) => item.id === kind);
  return (
    <section aria-label="Preview">
      <h2 className="mb-2 border-b-[3px] border-ink pb-1">Preview</h2>
      {small ? (
        <p role="alert" className="border-l-[6px] border-hot bg-hot-fill px-3 py-2 font-semibold">
          ▲ {small}
        </p>
      ) : (
        <img
          key={picture}
          src={picture}
          alt={`${what?.says} label of ${of.name}`}
          className="w-full max-w-[520px]"
          onError={() => setSmall("This does not fit this label, even in the smallest print. Choose a larger label or fewer languages.")}
        />
      )}
    </section>
  );
}

/** Labels and cards of a candle, drawn as they are printed. */
export function LabelsView(props: LabelsProps) {
  const { choices, sheets, settings, version, facts } = props;
  const { workshopId } = useWorkshop();
  const label = useLabel(props);
  const { of, sheet } = label;
  if (!of || !sheet)
    return (
      <PageLayout title="Labels and cards" lead="Labels for candles, and cards to go with them.">
        <p className="text-soft">
          There is no product yet.{" "}
          <Link className="underline" href="/products/new">
            Make one
          </Link>
          to see its labels.
        </p>
      </PageLayout>
    );
  const chosen = { ...label, of, sheet };
  const { pdf, buyers, picture } = addressesOf(chosen, workshopId);
  return (
    <PageLayout
      title="Labels and cards"
      lead={`${of.name}${of.number ? `, batch ${of.number}` : ""}`}
      actions={
        <>
          <a className="action-button" data-next-step href={pdf} target="_blank" rel="noreferrer" aria-disabled={label.small !== ""}>
            Open the PDF
          </a>
          <Link className="press" href="/sell">
            Back to Sell
          </Link>
        </>
      }
      side={<LabelMargin label={chosen} settings={settings} facts={facts} buyers={buyers} />}
    >
      <div className="grid grid-cols-1 gap-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <LabelChoices label={chosen} choices={choices} sheets={sheets} />
        <div>
          <AsPrinted label={chosen} picture={picture} />
          <div className="mt-6">
            <OwnWords key={version} settings={settings} version={version} />
          </div>
        </div>
      </div>
    </PageLayout>
  );
}
