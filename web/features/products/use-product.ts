"use client";

import {
  dueReasons,
  type EmbedChoice,
  type FormulaSpec,
  type LabelContainer,
  NO_PACKAGING,
  notToBeFilled,
  type Packaging,
  packedContainerOf,
  type Rates,
  suitedWicks,
  testedOf,
} from "@hearth/core";
import { useEffect, useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { readSpec } from "@/catalogue/catalogue";
import { useDraft } from "@/catalogue/draft";
import { embedChoicesOf } from "@/catalogue/embed-fields";
import { packagingOf } from "@/catalogue/packaging-fields";
import { type Few, useShelf } from "@/catalogue/use-shelf";
import { callAction } from "@/forms/call-action";
import { choiceRule, type FieldRule, named, orNothing, untouched, useFields, words } from "@/forms/fields";
import { suggestedFirst } from "@/forms/matches";
import { countRule, moneyRule } from "@/forms/rules";
import { useWorkshop } from "@/log/workshop";
import { saveProduct, sayWickTest } from "@/server/products/commands";
import type { Product } from "@/server/products/products";
import { useRouter } from "@/ui/address";
import { toast } from "@/ui/toast";
import { type Formats, useUnits } from "@/ui/units";
import { containerOf, reckon } from "./model";
import { perPieceRule } from "./rules";

type Names = { id: string; name: string; usedAt: string | null }[];

export interface ProductProps {
  product: Product | null;
  /** The formula as it is now, if there is one chosen already. */
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

/** The rules of a product's fields, beginning with what it is now. */
function productRules(product: Product | null, units: Formats): Record<string, FieldRule<unknown>> {
  const money = (value: number | null) => {
    const rule = orNothing({ ...moneyRule(units), initial: value === null ? "" : String(value / 10 ** units.moneyDecimals()) });
    return untouched(rule, value) as FieldRule<unknown>;
  };
  return {
    name: named("the product", product?.name) as FieldRule<unknown>,
    wicks: countRule({ least: 1, most: 9, name: "wicks" }, String(product?.wicks ?? 1)) as FieldRule<unknown>,
    price: money(product?.price ?? null),
    soldBy: choiceRule(product?.soldBy ?? "piece"),
    pack: countRule({ least: 1, most: 1_000, name: "pieces" }, String(product?.pack ?? 1)) as FieldRule<unknown>,
    packCost: money(product?.packCost ?? null),
    hands: perPieceRule(product?.handsSeconds ?? null),
    heat: perPieceRule(product?.heatSeconds ?? null),
    labelContainer: choiceRule(product?.labelContainer ?? ""),
    remarks: words(product?.remarks ?? "") as FieldRule<unknown>,
  };
}

/** Returns what a product can be filled into and wicked with, the suggested first. */
function useOptions(known: ReturnType<typeof useShelf>) {
  const { shelf, stocks, recentlyUsed } = known;
  return useMemo(() => {
    const likely = <T extends { id: string; name: string }>(list: T[]) => suggestedFirst(list, recentlyUsed, (id) => stocks[id]?.onHand);
    return {
      containers: [
        ...likely(shelf.vessels.filter((vessel) => !vessel.archived && notToBeFilled(vessel) === null)).map((item) => ({
          value: item.id,
          name: item.name,
          note: stocks[item.id] ? `${stocks[item.id]?.onHand} on hand` : item.material,
        })),
        ...shelf.molds.filter((mold) => !mold.archived).map((mold) => ({ value: mold.id, name: mold.name, note: mold.kind })),
      ],
      /** The wicks that suit first. */
      wicks: (suited: readonly { id: string; name: string }[]) => [
        { value: "", name: "no wick", note: "melts" },
        ...suited.map((item) => ({ value: item.id, name: item.name, note: "suits this diameter" })),
        ...likely(shelf.wicks.filter((wick) => !wick.archived && !suited.some((other) => other.id === wick.id))).map((item) => ({
          value: item.id,
          name: item.name,
          note: item.kind,
        })),
      ],
    };
  }, [shelf, stocks, recentlyUsed]);
}

/** A product as it is typed, and what follows: how it is drawn, what suits it, what it costs, whether its wick is to be tested again. */
export function useProduct({ product, spec: firstSpec, few, rates }: ProductProps) {
  const units = useUnits();
  const workshop = useWorkshop();
  const known = useShelf(few);
  const { shelf, stocks } = known;
  const [freshId] = useState(() => v7());
  const [formulaId, setFormulaId] = useState(product?.formulaId ?? "");
  const [containerId, setBodyId] = useState(product?.containerId ?? "");
  const [wickId, setWickId] = useState<string | null>(product ? (product.wickId ?? "") : null);
  const [embeds, setEmbeds] = useState<readonly EmbedChoice[]>(product?.embeds ?? []);
  const [packaging, setPackaging] = useState<Packaging>(product?.packaging ?? NO_PACKAGING);
  const spec = useSpec(workshop.workshopId, formulaId, product && firstSpec ? { id: product.formulaId, spec: firstSpec } : null);
  const rules = useMemo(() => productRules(product, units), [product, units]);
  const fields = useFields(rules);
  const draft = useDraft(
    `product:${product?.id ?? "new"}`,
    { ...fields.typed, formulaId, containerId, wickId: wickId ?? "", packaging: JSON.stringify(packaging), embeds: JSON.stringify(embeds) },
    (kept) => {
      const { formulaId: f, containerId: b, wickId: w, packaging: p, embeds: e, ...rest } = kept;
      if (e) setEmbeds(JSON.parse(e) as EmbedChoice[]);
      if (p) setPackaging(JSON.parse(p) as Packaging);
      fields.fill(rest);
      setFormulaId(f ?? "");
      setBodyId(b ?? "");
      setWickId(w ?? "");
    },
  );
  const v = fields.values;
  /** A new product has as many wicks as its vessel is made for, until another number is typed. */
  const chooseContainer = (id: string) => {
    const wicksIn = (of: string) => String(shelf.vessels.find((vessel) => vessel.id === of)?.wicks ?? 1);
    if (!product && fields.text("wicks") === wicksIn(containerId)) fields.set("wicks", wicksIn(id));
    setBodyId(id);
  };

  const options = useOptions(known);
  const container = shelf.vessels.some((vessel) => vessel.id === containerId) ? ("vessel" as const) : ("mold" as const);
  const drawn = containerOf(shelf, { container, containerId });
  const family = shelf.waxes.find((wax) => wax.id === spec?.waxes[0]?.id)?.family ?? "";
  const mold = shelf.molds.find((mold) => mold.id === containerId);
  // Of a size that nobody measured no wick follows.
  const isEstimated = shelf.vessels.find((vessel) => vessel.id === containerId)?.sizeEstimated ?? false;
  const wickless = mold?.kind === "melt tray" || mold?.kind === "silicone mold";
  const suited = drawn && !wickless && !isEstimated ? suitedWicks(shelf.wicks, Math.min(drawn.innerTopUm, drawn.innerBottomUm), family) : [];
  const chosenWick = wickId ?? suited[0]?.id ?? "";
  const chosenEmbeds = embedChoicesOf(embeds);
  const now: Omit<Product, "formulaName"> = {
    id: product?.id ?? freshId,
    name: String(v.name ?? ""),
    version: product?.version ?? 1,
    archived: product?.archived ?? false,
    formulaId,
    container,
    containerId,
    wickId: chosenWick || null,
    wicks: (v.wicks as number | undefined) ?? 1,
    embeds: chosenEmbeds.length > 0 ? chosenEmbeds : null,
    price: (v.price as number | null | undefined) ?? null,
    soldBy: (v.soldBy as "piece" | "weight" | undefined) ?? "piece",
    pack: (v.pack as number | undefined) ?? 1,
    packCost: (v.packCost as number | null | undefined) ?? null,
    handsSeconds: (v.hands as number | null | undefined) ?? null,
    heatSeconds: (v.heat as number | null | undefined) ?? null,
    wickTest: product?.wickTest ?? "test due",
    testedAs: product?.testedAs ?? null,
    packaging: packagingOf(packaging),
    fillsRooms: product?.fillsRooms ?? null,
    labelContainer: ((v.labelContainer as string | undefined) || null) as LabelContainer | null,
    remarks: String(v.remarks ?? ""),
  };
  const packedContainer = drawn ? packedContainerOf(drawn, now.pack) : null;
  return {
    ...{
      product,
      known,
      fields,
      draft,
      formulaId,
      setFormulaId,
      containerId,
      chooseContainer,
      container,
      drawn,
      wickId,
      setWickId,
      chosenWick,
      wickless,
      suited,
    },
    ...{ embeds, setEmbeds, packaging, setPackaging, packedContainer, now, spec },
    containers: options.containers,
    wickOptions: options.wicks(suited),
    worked: spec ? reckon(now, spec, shelf, stocks, rates) : null,
    due: product?.testedAs && product.wickTest !== "test due" && spec ? dueReasons(product.testedAs, testedOf(spec, now)) : [],
  };
}
export type ProductState = ReturnType<typeof useProduct>;

/** Saves a product, and says how its wick did. */
export function useProductSaving({ product, fields, draft, formulaId, containerId, now }: ProductState) {
  const workshop = useWorkshop();
  const router = useRouter();
  const [message, setMessage] = useState("");
  const [faults, setFaults] = useState<Record<string, string>>({});
  const [busy, start] = useTransition();
  const save = () => {
    const all = fields.check();
    setFaults({});
    if (formulaId === "" || containerId === "")
      return setFaults({
        ...(formulaId === "" ? { formulaId: "Choose the formula." } : {}),
        ...(containerId === "" ? { containerId: "Choose the vessel or mold." } : {}),
      });
    if (!all) return;
    start(async () => {
      const { formulaName: _f, ...rest } = { ...now, formulaName: "" };
      const { archived: _p, version: _v, wickTest: _w, testedAs: _t, ...values } = rest;
      const outcome = await callAction(saveProduct(workshop, { ...values, expectedVersion: product?.version ?? null }));
      if (!outcome.ok) {
        setFaults(Object.fromEntries(Object.entries(outcome.fields).map(([key, messages]) => [key, messages[0] ?? ""])));
        fields.refuse(outcome.fields);
        return setMessage(outcome.message);
      }
      draft.drop();
      setMessage("");
      // Said beside the page: it is read again, and what is said on it would be gone.
      toast(outcome.value.dueAgain.length > 0 ? "Saved. Its burn test is due again." : "Saved.");
      if (product) router.refresh();
      else router.push(`/products/${outcome.value.id}`);
    });
  };
  const sayTest = (wickTest: Product["wickTest"]) =>
    start(async () => {
      if (!product) return;
      const outcome = await callAction(sayWickTest(workshop, { id: product.id, expectedVersion: product.version, wickTest }));
      setMessage(outcome.ok ? "" : outcome.message);
      if (outcome.ok) router.refresh();
    });
  return { save, sayTest, message, faults, busy };
}
export type ProductSaving = ReturnType<typeof useProductSaving>;
