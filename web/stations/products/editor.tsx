"use client";

import {
  BODIES,
  BODY_NAMES,
  dueReasons,
  type FormulaSpec,
  good,
  type LabelBody,
  NO_PACKING,
  notToBeFilled,
  type Packing,
  packedBodyOf,
  type Rates,
  suitedWicks,
  testedOf,
} from "@hearth/core";
import { useEffect, useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { AddBeside } from "@/catalogue/add-beside";
import { readSpec } from "@/catalogue/catalogue";
import { useDraft } from "@/catalogue/draft";
import { PackingFields, packingOf } from "@/catalogue/packing-fields";
import { type Few, useShelf } from "@/catalogue/use-shelf";
import { ask } from "@/forms/ask";
import { Chooser } from "@/forms/chooser";
import { Field, type FieldRule, named, orNothing, untouched, useFields, words } from "@/forms/fields";
import { likeliest } from "@/forms/matches";
import { countRule, moneyRule } from "@/forms/rules";
import { usePlace } from "@/log/place";
import type { Product } from "@/server/products";
import { Link, useRouter } from "@/ui/address";
import { JarSection } from "@/ui/jar-section";
import { Aside, Caution, Screen, Warn } from "@/ui/margin";
import { Said } from "@/ui/said";
import { toast } from "@/ui/toast";
import { useUnits } from "@/ui/units";
import { saveProduct, sayWickTest } from "./commands";
import { bodyOf, DUE_WORDS, nameIn, reckon, TEST_WORDS } from "./model";
import { perPieceRule } from "./rules";

type Names = { id: string; name: string; usedAt: string | null }[];

interface Props {
  product: Product | null;
  /** The formula as it is now, where one is chosen already. */
  spec: FormulaSpec | null;
  formulas: Names;
  few: Few;
  rates: Rates;
}

/** Reads what the chosen formula says. */
function useSpec(workshopId: string, id: string, first: { id: string; spec: FormulaSpec } | null): FormulaSpec | null {
  const [read, setRead] = useState(first);
  useEffect(() => {
    if (id === "" || read?.id === id) return;
    let left = false;
    readSpec(workshopId, id)
      .then((found) => !left && found && setRead({ id, spec: found }))
      .catch(() => undefined);
    return () => {
      left = true;
    };
  }, [workshopId, id, read?.id]);
  return read?.id === id ? read.spec : null;
}

/** Makes or changes a product: what it is, what it costs, what it is sold for, and how its wick did. */
export function ProductEditor({ product, spec: firstSpec, formulas, few, rates }: Props) {
  const units = useUnits();
  const place = usePlace();
  const router = useRouter();
  const known = useShelf(few);
  const { shelf, stocks, lately } = known;
  const [freshId] = useState(() => v7());
  const [formulaId, setFormulaId] = useState(product?.formulaId ?? "");
  const [bodyId, setBodyId] = useState(product?.bodyId ?? "");
  const [wickId, setWickId] = useState<string | null>(product ? (product.wickId ?? "") : null);
  const [packing, setPacking] = useState<Packing>(product?.packing ?? NO_PACKING);
  const [adding, setAdding] = useState<{ kind: "vessel" | "wick"; name: string } | null>(null);
  const [said, setSaid] = useState("");
  const [faults, setFaults] = useState<Record<string, string>>({});
  const [busy, start] = useTransition();
  const spec = useSpec(place.workshopId, formulaId, product && firstSpec ? { id: product.formulaId, spec: firstSpec } : null);
  const rules = useMemo((): Record<string, FieldRule<unknown>> => {
    const money = (value: number | null) => {
      const rule = orNothing({ ...moneyRule(units), initial: value === null ? "" : String(value / 10 ** units.moneyDecimals) });
      return untouched(rule, value) as FieldRule<unknown>;
    };
    return {
      name: named("the product", product?.name) as FieldRule<unknown>,
      wicks: countRule({ least: 1, most: 9, name: "wicks" }, String(product?.wicks ?? 1)) as FieldRule<unknown>,
      price: money(product?.price ?? null),
      soldBy: { initial: product?.soldBy ?? "piece", parse: good },
      pack: countRule({ least: 1, most: 1_000, name: "pieces" }, String(product?.pack ?? 1)) as FieldRule<unknown>,
      packCost: money(product?.packCost ?? null),
      hands: perPieceRule(product?.handsSeconds ?? null),
      heat: perPieceRule(product?.heatSeconds ?? null),
      labelBody: { initial: product?.labelBody ?? "", parse: good },
      remarks: words(product?.remarks ?? "") as FieldRule<unknown>,
    };
  }, [product, units]);
  const fields = useFields(rules);
  const draft = useDraft(
    `product:${product?.id ?? "new"}`,
    { ...fields.typed, formulaId, bodyId, wickId: wickId ?? "", packing: JSON.stringify(packing) },
    (kept) => {
      const { formulaId: f, bodyId: b, wickId: w, packing: p, ...rest } = kept;
      if (p) setPacking(JSON.parse(p) as Packing);
      fields.fill(rest);
      setFormulaId(f ?? "");
      setBodyId(b ?? "");
      setWickId(w ?? "");
    },
  );
  const v = fields.values;
  /** A new product has as many wicks as its vessel is made for, until another number is typed. */
  const chooseBody = (id: string) => {
    const wicksIn = (of: string) => String(shelf.vessels.find((one) => one.id === of)?.wicks ?? 1);
    if (!product && fields.text("wicks") === wicksIn(bodyId)) fields.set("wicks", wicksIn(id));
    setBodyId(id);
  };

  const bodies = useMemo(
    () => [
      ...likeliest(
        shelf.vessels.filter((one) => !one.putAway && notToBeFilled(one) === null),
        lately,
        (id) => stocks[id]?.onHand,
      ).map((one) => ({ value: one.id, name: one.name, note: stocks[one.id] ? `${stocks[one.id]?.onHand} on hand` : one.material })),
      ...shelf.moulds.filter((one) => !one.putAway).map((one) => ({ value: one.id, name: one.name, note: one.kind })),
    ],
    [shelf.vessels, shelf.moulds, stocks, lately],
  );
  const body = shelf.vessels.some((one) => one.id === bodyId) ? ("vessel" as const) : ("mould" as const);
  const drawn = bodyOf(shelf, { body, bodyId });
  const family = shelf.waxes.find((one) => one.id === spec?.waxes[0]?.id)?.family ?? "";
  const mould = shelf.moulds.find((one) => one.id === bodyId);
  const wickless = mould?.kind === "melt tray" || mould?.kind === "silicone mould";
  const suited = drawn && !wickless ? suitedWicks(shelf.wicks, Math.min(drawn.innerTopUm, drawn.innerBottomUm), family) : [];
  const chosenWick = wickId ?? suited[0]?.id ?? "";
  const wickOptions = [
    { value: "", name: "no wick", note: "melts" },
    ...suited.map((one) => ({ value: one.id, name: one.name, note: "suits this diameter" })),
    ...likeliest(
      shelf.wicks.filter((one) => !one.putAway && !suited.some((other) => other.id === one.id)),
      lately,
      (id) => stocks[id]?.onHand,
    ).map((one) => ({ value: one.id, name: one.name, note: one.kind })),
  ];
  const now: Omit<Product, "formulaName"> = {
    id: product?.id ?? freshId,
    name: String(v.name ?? ""),
    version: product?.version ?? 1,
    putAway: product?.putAway ?? false,
    formulaId,
    body,
    bodyId,
    wickId: chosenWick || null,
    wicks: (v.wicks as number | undefined) ?? 1,
    price: (v.price as number | null | undefined) ?? null,
    soldBy: (v.soldBy as "piece" | "weight" | undefined) ?? "piece",
    pack: (v.pack as number | undefined) ?? 1,
    packCost: (v.packCost as number | null | undefined) ?? null,
    handsSeconds: (v.hands as number | null | undefined) ?? null,
    heatSeconds: (v.heat as number | null | undefined) ?? null,
    wickTest: product?.wickTest ?? "test due",
    testedAs: product?.testedAs ?? null,
    packing: packingOf(packing),
    labelBody: ((v.labelBody as string | undefined) || null) as LabelBody | null,
    remarks: String(v.remarks ?? ""),
  };
  const packedBody = drawn ? packedBodyOf(drawn, now.pack) : null;
  const worked = spec ? reckon(now, spec, shelf, stocks, rates) : null;
  const due = product?.testedAs && product.wickTest !== "test due" && spec ? dueReasons(product.testedAs, testedOf(spec, now)) : [];

  const save = () => {
    const all = fields.check();
    setFaults({});
    if (formulaId === "" || bodyId === "")
      return setFaults({
        ...(formulaId === "" ? { formulaId: "Choose the formula." } : {}),
        ...(bodyId === "" ? { bodyId: "Choose the vessel or mould." } : {}),
      });
    if (!all) return;
    start(async () => {
      const { formulaName: _f, ...rest } = { ...now, formulaName: "" };
      const { putAway: _p, version: _v, wickTest: _w, testedAs: _t, ...values } = rest;
      const outcome = await ask(saveProduct(place, { ...values, expectedVersion: product?.version ?? null }));
      if (!outcome.ok) {
        setFaults(Object.fromEntries(Object.entries(outcome.fields).map(([key, messages]) => [key, messages[0] ?? ""])));
        fields.refuse(outcome.fields);
        return setSaid(outcome.message);
      }
      draft.drop();
      setSaid("");
      // Said beside the page: it is read again, and what is said on it would be gone.
      toast(outcome.value.dueAgain.length > 0 ? "Saved. Its wick test is due again." : "Saved.");
      if (product) router.refresh();
      else router.push(`/products/${outcome.value.id}`);
    });
  };
  const sayTest = (wickTest: Product["wickTest"]) =>
    start(async () => {
      if (!product) return;
      const outcome = await ask(sayWickTest(place, { id: product.id, expectedVersion: product.version, wickTest }));
      setSaid(outcome.ok ? "" : outcome.message);
      if (outcome.ok) router.refresh();
    });
  return (
    <Screen
      title={product ? product.name : "New product"}
      lead="A formula in a vessel or mould, with its wick, its price and its pack."
      actions={
        <>
          {product ? (
            <>
              <Link className="press" href={`/sell/labels?product=${product.id}`}>
                Labels
              </Link>
              <Link className="press" href={`/plan?product=${product.id}`}>
                Plan a batch
              </Link>
            </>
          ) : null}
          <button type="submit" form="product-form" className="act" data-next-step disabled={busy}>
            {busy ? "Saving" : "Save the product"}
          </button>
        </>
      }
      side={
        <>
          {draft.offer}
          {due.length > 0 ? <Warn>Test the wick again: {due.map((one) => DUE_WORDS[one]).join(", ")}.</Warn> : null}
          {wickless && chosenWick ? <Warn>Melts and moulded pieces without a flame take no wick.</Warn> : null}
          {now.wickTest === "failed" ? <Caution title="Its wick failed">Do not sell it with this wick. Change the wick, and test again.</Caution> : null}
          <Aside title="The price is of a pack">A pack of one is a single piece. Tealights by six are a pack of six.</Aside>
          <Aside title="Test data is not a safety certificate">Burn tests, labels and your local rules decide what may be sold.</Aside>
        </>
      }
    >
      <form
        id="product-form"
        ref={fields.form}
        className="grid grid-cols-1 gap-6 xl:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)]"
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <section className="sheet">
          <h2 className="mb-2">What it is</h2>
          <Field label="Name" {...fields.bind("name")} autoFocus={!product} />
          <div className="grid gap-x-4 sm:grid-cols-2">
            <Chooser
              label="Formula"
              value={formulaId}
              options={(known.whole?.formulas ?? formulas).map((one) => ({ value: one.id, name: one.name }))}
              onLook={known.look}
              onValue={setFormulaId}
              error={faults.formulaId ?? ""}
            />
            <Chooser
              label="Vessel or mould"
              value={bodyId}
              options={bodies}
              onLook={known.look}
              onValue={chooseBody}
              error={faults.bodyId ?? ""}
              add={{ label: "a new vessel", act: (name) => setAdding({ kind: "vessel", name }) }}
            />
            <Chooser
              label="Wick"
              value={chosenWick}
              options={wickOptions}
              onLook={known.look}
              onValue={setWickId}
              error={faults.wickId ?? ""}
              hint={wickId === null && suited[0] ? "Suits the diameter; the burn test decides." : undefined}
              add={{ label: "a new wick", act: (name) => setAdding({ kind: "wick", name }) }}
            />
            {chosenWick ? <Field label="Wicks in one" {...fields.bind("wicks")} inputMode="numeric" /> : <span />}
          </div>
          {adding ? (
            <AddBeside
              kind={adding.kind}
              name={adding.name}
              waxes={shelf.waxes}
              onDone={() => setAdding(null)}
              onMade={async (id) => {
                await known.again();
                if (adding.kind === "vessel") chooseBody(id);
                else setWickId(id);
                setAdding(null);
              }}
            />
          ) : null}
          <h2 className="mt-4 mb-2">How it is sold</h2>
          <div className="grid gap-x-4 sm:grid-cols-2">
            <Field label="Price of a pack" unit={units.currency} {...fields.bind("price")} inputMode="decimal" />
            <Field label="Pieces in a pack" {...fields.bind("pack")} inputMode="numeric" />
            <Field
              label="Sold by"
              {...fields.bind("soldBy")}
              options={[
                { value: "piece", label: "the piece" },
                { value: "weight", label: "weight: never below the stated fill" },
              ]}
            />
            <Field
              label="What packing one costs"
              unit={units.currency}
              {...fields.bind("packCost")}
              inputMode="decimal"
              hint="Beside the parts below, which cost what their lots cost."
            />
            <Field
              label="Hands for one piece"
              unit="min"
              {...fields.bind("hands")}
              hint={rates.handsCost === null ? "Counted once the workshop says what an hour costs." : undefined}
            />
            <Field
              label="Heat for one piece"
              unit="min"
              {...fields.bind("heat")}
              hint={rates.heatCost === null ? "Counted once the workshop says what an hour costs." : undefined}
            />
          </div>
          <h2 className="mt-4 mb-2">How it is packed</h2>
          <PackingFields
            value={packing}
            onValue={setPacking}
            shelf={shelf}
            stocks={stocks}
            lately={lately}
            onLook={known.look}
            bodies={packedBody ? [packedBody] : []}
            guessed={packedBody?.guessed ?? false}
          />
          <div className="mt-3">
            <Field
              label="Its warnings go by"
              {...fields.bind("labelBody")}
              options={[
                { value: "", label: `its body: ${BODY_NAMES[chosenWick === "" ? "melt" : body === "mould" ? "pillar" : "container"]}` },
                ...BODIES.map((one) => ({ value: one, label: BODY_NAMES[one] })),
              ]}
            />
          </div>
          <Field label="Remarks" {...fields.bind("remarks")} lines={2} />
          <Said>{said}</Said>
        </section>
        <div className="flex flex-col gap-6">
          <section className="sheet flex flex-col items-center" aria-label="Section">
            {drawn ? (
              <>
                <JarSection
                  {...drawn}
                  wicks={chosenWick ? now.wicks : 0}
                  headspaceUm={null}
                  fillMg={drawn.workingFillMg}
                  scale={Math.min(2.2, 190 / Math.max(drawn.heightUm / 1_000, drawn.innerTopUm / 1_000))}
                />
                <p>
                  <span className="figure text-[30px]">{units.g(drawn.workingFillMg)}</span> <span className="text-soft">in one</span>
                </p>
              </>
            ) : (
              <p className="py-10 text-soft">Choose a vessel or mould, and it is drawn here with its fill and wick.</p>
            )}
          </section>
          <section className="sheet" aria-label="What one costs">
            <h2>What one costs</h2>
            {worked && worked.cost > 0 ? (
              <>
                <dl>
                  {worked.lines.map((line) => (
                    <div key={line.what} className="flex items-baseline justify-between border-b border-line py-1">
                      <dt>{line.what}</dt>
                      <dd className="figure text-[19px]">{units.money(line.cost, line.cost < 100 ? 1 : 0)}</dd>
                    </div>
                  ))}
                  <div className="flex items-baseline justify-between py-1">
                    <dt className="font-semibold">one piece</dt>
                    <dd className="figure text-[34px]">{units.money(worked.cost)}</dd>
                  </div>
                  {worked.margin ? (
                    <div className="flex items-baseline justify-between border-t-2 border-ink py-1">
                      <dt className="font-semibold">left of {units.money(now.price ?? 0)}</dt>
                      <dd className={`figure text-[34px] ${worked.margin.left < 0 ? "text-hot" : "text-inside"}`}>
                        {units.money(worked.margin.left)} <span className="text-[18px]">{units.n(worked.margin.share * 100, 0)} %</span>
                      </dd>
                    </div>
                  ) : null}
                </dl>
                {worked.unpriced.length > 0 ? (
                  <p className="text-[14px] text-soft">Without {worked.unpriced.map((id) => nameIn(shelf, id)).join(", ")}: no lot with a cost covers it.</p>
                ) : null}
              </>
            ) : (
              <p className="mt-1 text-soft">
                {worked ? "No lot of what it takes says what it cost." : "Choose a formula and a vessel, and what one costs stands here."}
              </p>
            )}
          </section>
          {product && chosenWick ? (
            <section className="sheet" aria-label="Wick test">
              <h2>{TEST_WORDS[product.wickTest]}</h2>
              <p className="mt-1 text-[15px] text-soft">
                After at least three sessions and a burn to the end, say how the wick did with this scent, load, wax and vessel.
              </p>
              <div className="mt-2 flex flex-wrap gap-2">
                <Link className="press" href={`/burn/new?product=${product.id}`}>
                  Design a burn trial
                </Link>
                {product.wickTest !== "tested" ? (
                  <button type="button" className="press" disabled={busy} onClick={() => sayTest("tested")}>
                    Tested, and it holds
                  </button>
                ) : null}
                {product.wickTest !== "failed" ? (
                  <button type="button" className="press" disabled={busy} onClick={() => sayTest("failed")}>
                    It failed
                  </button>
                ) : null}
                {product.wickTest !== "test due" ? (
                  <button type="button" className="press" disabled={busy} onClick={() => sayTest("test due")}>
                    Test it again
                  </button>
                ) : null}
              </div>
            </section>
          ) : null}
        </div>
      </form>
    </Screen>
  );
}
