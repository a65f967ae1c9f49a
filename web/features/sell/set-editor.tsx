"use client";

import { NO_PACKAGING, type Packaging, packedContainerOf, type Sellable } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { useDraft } from "@/catalogue/draft";
import { PackagingFields, packagingOf } from "@/catalogue/packaging-fields";
import { Tidy } from "@/catalogue/tidy";
import { type Few, useShelf } from "@/catalogue/use-shelf";
import { callAction } from "@/forms/call-action";
import { Field, type FieldRule, named, orNothing, untouched, useFields, words } from "@/forms/fields";
import { moneyRule } from "@/forms/rules";
import { useWorkshop } from "@/log/workshop";
import { saveSet } from "@/server/sales/commands";
import type { SetRow } from "@/server/sales/finished-goods";
import { Link, useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { Aside, PageLayout } from "@/ui/side-notes";
import { toast } from "@/ui/toast";
import { useUnits } from "@/ui/units";
import { Lines, type Typed } from "./lines";
import type { Inside } from "./model";

/** Several products in one pack: what goes in, its box, its price. */
export function SetEditor({ set, products, inside, few }: { set: SetRow | null; products: Sellable[]; inside: Inside[]; few: Few }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const known = useShelf(few);
  const [freshId] = useState(() => v7());
  const [lines, setLines] = useState<Typed[]>(
    set?.contents.map((content) => ({ sellable: content.productId, packs: content.count })) ?? [{ sellable: "", packs: 1 }],
  );
  const [packaging, setPackaging] = useState<Packaging>(set?.packaging ?? NO_PACKAGING);
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const rules = useMemo(
    (): Record<string, FieldRule<unknown>> => ({
      name: named("the set", set?.name) as FieldRule<unknown>,
      price: untouched(
        orNothing({ ...moneyRule(units), initial: set?.price == null ? "" : String(set.price / 10 ** units.moneyDecimals()) }),
        set?.price ?? null,
      ) as FieldRule<unknown>,
      remarks: words(set?.remarks ?? "") as FieldRule<unknown>,
    }),
    [set, units],
  );
  const fields = useFields(rules);
  const draft = useDraft(`set:${set?.id ?? "new"}`, { ...fields.typed, lines: JSON.stringify(lines), packaging: JSON.stringify(packaging) }, (kept) => {
    const { lines: l, packaging: p, ...rest } = kept;
    fields.fill(rest);
    if (l) setLines(JSON.parse(l) as Typed[]);
    if (p) setPackaging(JSON.parse(p) as Packaging);
  });
  const containers = lines.flatMap((line) => {
    const of = inside.find((inside) => inside.productId === line.sellable);
    return of && line.packs > 0 ? [packedContainerOf(of.container, line.packs)] : [];
  });
  const single = lines.reduce(
    (sum, line) =>
      sum +
      ((products.find((product) => product.id === line.sellable)?.price ?? 0) * line.packs) /
        Math.max(1, products.find((product) => product.id === line.sellable)?.contents[0]?.count ?? 1),
    0,
  );
  const save = () => {
    const all = fields.check();
    if (!all) return;
    start(async () => {
      const outcome = await callAction(
        saveSet(workshop, {
          id: set?.id ?? freshId,
          expectedVersion: set?.version ?? null,
          name: all.name,
          price: all.price,
          remarks: all.remarks,
          contents: lines.filter((line) => line.sellable && line.packs > 0).map((line) => ({ productId: line.sellable, count: line.packs })),
          packaging: packagingOf(packaging),
        }),
      );
      if (!outcome.ok) {
        fields.refuse(Object.fromEntries(Object.entries(outcome.fields).filter(([name]) => name in rules)));
        return setMessage(outcome.message);
      }
      draft.drop();
      setMessage("");
      toast("Saved.");
      if (set) router.refresh();
      else router.push(`/sell/sets/${outcome.value.id}`);
    });
  };
  return (
    <PageLayout
      title={set ? set.name : "New set"}
      lead="Several products sold as one: a sample set, a gift box. Or goods that you bought to resell."
      actions={
        <>
          <button type="submit" form="set-form" className="action-button" data-next-step disabled={busy}>
            {busy ? "Saving" : "Save the set"}
          </button>
          <Link className="press" href={set ? `/sell/pack?of=${set.id}` : "/sell"}>
            {set ? "Pack some" : "Back to Sell"}
          </Link>
          {set ? <Tidy kind="set" id={set.id} name={set.name} away={set.archived} path={(id) => `/sell/sets/${id}`} /> : null}
        </>
      }
      side={
        <>
          {draft.offer}
          <Aside title="Candles, not packs">A set counts single candles of its products, whatever their own pack is.</Aside>
          <Aside title="Goods to resell">
            A wick trimmer or a lighter: add it to the shelf as packing of the kind “goods to resell”, leave the contents empty, and choose it among the parts
            of the pack.
          </Aside>
          {single > 0 ? <Aside title="Separately">Its candles cost {units.money(Math.round(single))} when they are bought separately.</Aside> : null}
        </>
      }
    >
      <form
        id="set-form"
        ref={fields.form}
        className="grid grid-cols-1 gap-6 lg:grid-cols-2"
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <section className="sheet">
          <Field label="Name" {...fields.bind("name")} autoFocus={!set} />
          <h2 className="mt-2 mb-2">Contents</h2>
          <Lines lines={lines} onLines={setLines} sellables={products} there={{}} what="set" />
          <div className="mt-3">
            <Field label="Price per pack" unit={units.currency} {...fields.bind("price")} inputMode="decimal" />
          </div>
          <Field label="Remarks" {...fields.bind("remarks")} lines={2} />
          <FormMessage>{message}</FormMessage>
        </section>
        <section className="sheet">
          <h2 className="mb-2">{lines.some((line) => line.sellable) ? "How it is packed" : "What is resold, and how it is packed"}</h2>
          <PackagingFields
            value={packaging}
            onValue={setPackaging}
            shelf={known.shelf}
            stocks={known.stocks}
            recentlyUsed={known.recentlyUsed}
            onLook={known.look}
            containers={containers}
            guessed={containers.some((container) => container.guessed)}
          />
        </section>
      </form>
    </PageLayout>
  );
}
