"use client";

import { answerQuantity, good, packagingDraw, parseMass, QUANTITY_RULES, quantityRulesOf, samplePlan } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { BoxShown } from "@/catalogue/packaging-fields";
import { callAction } from "@/forms/call-action";
import { Chooser } from "@/forms/chooser";
import { Field, type FieldRule, useFields } from "@/forms/fields";
import { countRule } from "@/forms/rules";
import { useWorkshop } from "@/log/workshop";
import type { Shelf, Stocks } from "@/server/inventory/shelf";
import { pack, unpack } from "@/server/sales/commands";
import type { FinishedGoodsRow, RecentlyPacked } from "@/server/sales/finished-goods";
import { Link, useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { Aside, Empty, PageLayout, Warn } from "@/ui/side-notes";
import { toast } from "@/ui/toast";
import { type Formats, useUnits } from "@/ui/units";
import { containersIn, type Inside } from "./model";

interface PackProps {
  finishedGoods: FinishedGoodsRow[];
  of: string | null;
  inside: Inside[];
  packs: Shelf["packs"];
  stocks: Stocks;
  recentPacks: RecentlyPacked[];
}

/** Net weights, a line or a comma each. */
function weightsIn(text: string, unit: "g" | "oz"): { ok: true; value: number[] } | { ok: false; message: string } {
  const out: number[] = [];
  for (const part of text
    .split(/[\n;]+|,\s/)
    .map((text) => text.trim())
    .filter(Boolean)) {
    const read = parseMass(part, { unit });
    if (!read.ok) return { ok: false, message: read.message };
    out.push(read.value);
  }
  return { ok: true, value: out };
}

/** Returns whether net weights of a lot of packs hold what is stated, in the units of the workshop. */
const netOf = (statedMg: number, weightsMg: readonly number[], lot: number, units: Formats) =>
  answerQuantity({ stated_g: statedMg / 1_000, weights_g: weightsMg.map((mg) => mg / 1_000), lot, rules: quantityRulesOf(units.locale) }, (g) =>
    units.g(Math.round(g * 1_000)),
  );
const NET_WORDS = { pass: "they meet the net weight", fail: "they are below the net weight", too_few: "too few to tell" } as const;

/** Packs what stands released into packs, and weighs a sample where it is sold by weight. */
export function PackView({ finishedGoods, of, inside, packs, stocks, recentPacks }: PackProps) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const [id, setId] = useState(of ?? finishedGoods.find((stocked) => stocked.loose > 0)?.sellable.id ?? "");
  const [packRunId, setPackRunId] = useState(() => v7());
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const row = finishedGoods.find((stocked) => stocked.sellable.id === id);
  const sellable = row?.sellable;
  const { containers, guessed, statedMg } = useMemo(() => containersIn(sellable, inside), [sellable, inside]);
  const rules = useMemo(
    (): { packs: FieldRule<number>; weights: FieldRule<number[]> } => ({
      packs: countRule({ least: 1, most: Math.max(1, row?.loose ?? 1), name: "packs" }, row && row.loose > 0 ? String(row.loose) : ""),
      weights: {
        initial: "",
        parse: (text) => {
          const read = weightsIn(text, units.mass);
          return read.ok ? good(read.value) : { ok: false, code: "not-understood", message: read.message };
        },
      },
    }),
    [row, units.mass],
  );
  const fields = useFields(rules);
  const many = fields.values.packs ?? 0;
  const weights = fields.values.weights ?? [];
  const net = statedMg !== null && weights.length > 0 ? netOf(statedMg, weights, Math.max(1, many), units) : null;
  const law = quantityRulesOf(units.locale);
  const plan = samplePlan(many || 1, law);
  const draws = sellable ? packagingDraw(sellable.packaging, Math.max(1, many)) : [];
  const short = draws.filter((item) => stocks[item.id] && (stocks[item.id]?.onHand ?? 0) < item.count);
  const put = () => {
    const all = fields.check();
    if (!all || !sellable) return;
    start(async () => {
      const outcome = await callAction(
        pack(workshop, { packRunId, sellableId: sellable.id, packs: all.packs, weightsMg: all.weights, statedMg: all.weights.length > 0 ? statedMg : null }),
      );
      if (!outcome.ok) {
        fields.refuse(Object.fromEntries(Object.entries(outcome.fields).filter(([name]) => name === "packs")));
        return setMessage(outcome.message);
      }
      setMessage("");
      toast(`${all.packs} × ${sellable.name} packed.`);
      setPackRunId(v7());
      fields.reset();
      router.refresh();
    });
  };
  const apart = (item: RecentlyPacked) =>
    start(async () => {
      const outcome = await callAction(unpack(workshop, { packRunId: item.id }));
      toast(outcome.ok ? `${item.packs} × ${item.name} unpacked: the jars are on the rack again.` : outcome.message);
      if (outcome.ok) router.refresh();
    });
  const nothing = finishedGoods.every((stocked) => stocked.loose <= 0);
  return (
    <PageLayout
      title="Pack"
      lead="Pack released jars, the oldest batch first."
      actions={
        <>
          <button type="submit" form="pack-form" className="action-button" data-next-step disabled={busy || !sellable}>
            {busy ? "Packing" : "Pack"}
          </button>
          <Link className="press" href="/sell">
            Back to Sell
          </Link>
        </>
      }
      side={
        <>
          {row?.test === "test due" ? <Warn>The wick test of {sellable?.name} is due: burn-test it before it is sold.</Warn> : null}
          {row?.test === "failed" ? <Warn>The wick test of {sellable?.name} failed: do not sell it.</Warn> : null}
          {short.map((item) => (
            <Warn key={item.id}>
              {packs.find((part) => part.id === item.id)?.name}: {stocks[item.id]?.onHand} on hand, {item.count} needed.
            </Warn>
          ))}
          <Aside title="Box fit">Leave a little clearance on each side. Allow for the height of the lid.</Aside>
          <Aside title="Sold by weight">
            Weigh a sample of {QUANTITY_RULES[law].smallest.sample} or more, without the vessel. The mean must reach the net weight, and few may be far below.
            By {QUANTITY_RULES[law].name}, from memory; local rules come first.
          </Aside>
        </>
      }
    >
      {nothing && recentPacks.length === 0 ? (
        <Empty
          title="Nothing is released yet"
          action={
            <Link className="action-button" href="/rack">
              To the rack
            </Link>
          }
        >
          <p>Release a cured and inspected batch on the rack to pack its jars here.</p>
        </Empty>
      ) : (
        <form
          id="pack-form"
          ref={fields.form}
          className="grid grid-cols-1 gap-6 lg:grid-cols-2"
          onSubmit={(event) => {
            event.preventDefault();
            put();
          }}
        >
          <section className="sheet">
            <Chooser
              label="Product"
              value={id}
              options={finishedGoods.map((stocked) => ({
                value: stocked.sellable.id,
                name: stocked.sellable.name,
                note: stocked.loose > 0 ? `${stocked.loose} to pack` : "none loose",
              }))}
              onValue={(next) => {
                setId(next);
                fields.reset();
              }}
            />
            {sellable ? (
              <p className="mb-2 text-[15px] text-soft">
                One pack: {sellable.contents.map((content) => `${content.count} × ${content.name}`).join(", ")}
                {draws.length > 0
                  ? `; with ${packagingDraw(sellable.packaging, 1)
                      .map((item) => `${item.count} × ${packs.find((part) => part.id === item.id)?.name ?? "a part"}`)
                      .join(", ")}`
                  : "; no box or label set"}
              </p>
            ) : null}
            {(row?.untested ?? []).map((item) => (
              <Warn key={item.number}>
                Batch {item.number} was released without a burn test: “{item.why}”.
              </Warn>
            ))}
            <Field label="Packs" {...fields.bind("packs")} inputMode="numeric" large hint={row ? `${row.loose} can be packed now` : undefined} />
            {statedMg !== null ? (
              <Field
                label="Net weights, one a line"
                {...fields.bind("weights")}
                lines={4}
                hint={`Stated: ${units.g(statedMg)}. Of ${many || 1} packs weigh ${plan.sample}, without the vessel: ${plan.mayFall === 0 ? "none" : `at most ${plan.mayFall}`} may be short by more than the tolerable error. Leave empty if none was weighed.`}
              />
            ) : null}
            {net ? (
              <div role="status" className="border-2 border-ink p-3">
                <p className={`text-[18px] font-bold ${net.verdict === "pass" ? "text-inside" : net.verdict === "fail" ? "text-hot" : ""}`}>
                  {net.verdict === "pass" ? "✓ They meet the net weight" : net.verdict === "fail" ? "▲ They are below the net weight" : "Too few to tell"}
                </p>
                <p>{net.why}</p>
                <p className="text-[15px] text-soft">
                  {weights.length} weighed, mean {units.g(Math.round(net.mean_g * 1_000))}
                  {net.sd_g === null ? "" : `, spread ${units.g(Math.round(net.sd_g * 1_000))}`}; {net.below} below by more than{" "}
                  {units.g(Math.round(net.tolerable_negative_error_g * 1_000))}.
                </p>
                {net.verdict !== "pass" && net.fill_to_pass_g !== null && statedMg !== null ? (
                  <p className="mt-1 font-semibold">
                    Fill {units.g(Math.max(0, Math.round((net.fill_to_pass_g - net.mean_g) * 1_000)))} more ({units.g(Math.round(net.fill_to_pass_g * 1_000))}),
                    or weigh each. A lot of that mean passes in at least {units.n((net.fill_passes_share ?? 0) * 100, 0)} of 100 cases.
                  </p>
                ) : null}
              </div>
            ) : null}
            <FormMessage>{message}</FormMessage>
          </section>
          <section className="sheet" aria-label="In the box">
            <h2>In the box</h2>
            {sellable?.packaging.boxId ? (
              <BoxShown box={packs.find((pack) => pack.id === sellable.packaging.boxId)} containers={containers} guessed={guessed} />
            ) : (
              <p className="text-soft">No box is set for it. {sellable?.kind === "set" ? "Set it on the set." : "Set it on the product."}</p>
            )}
            {row && row.lots.length > 0 ? <p className="mt-2">{row.packed} packs of it are in stock already.</p> : null}
          </section>
        </form>
      )}
      {recentPacks.length > 0 ? (
        <section className="mt-6" aria-label="Recently packed">
          <h2 className="border-b-[3px] border-ink pb-1">Recently packed</h2>
          <ul>
            {recentPacks.map((item) => (
              <li key={item.id} className="grid items-center gap-x-4 gap-y-1 border-b border-line py-2 sm:grid-cols-[minmax(0,1fr)_auto]">
                <span className="min-w-0">
                  <strong>
                    {item.packs} × {item.name}
                  </strong>{" "}
                  <span className="text-soft">
                    {units.dayClock(item.at)}, of batch {[...new Set(item.batches.map((each) => each.number))].join(", ")}
                    {item.gone > 0 ? `; ${item.gone} went out` : ""}
                    {item.weightsMg.length > 0 && item.statedMg !== null
                      ? `; ${item.weightsMg.length} weighed: ${NET_WORDS[netOf(item.statedMg, item.weightsMg, item.packs, units).verdict]}`
                      : ""}
                  </span>
                </span>
                <span className="flex gap-2">
                  <Link className="press" href={`/sell/labels?packRun=${item.id}`} aria-label={`Labels for ${item.packs} × ${item.name}`}>
                    Labels
                  </Link>
                  {item.gone === 0 ? (
                    <button type="button" className="press" disabled={busy} aria-label={`Unpack ${item.packs} × ${item.name}`} onClick={() => apart(item)}>
                      Unpack
                    </button>
                  ) : null}
                </span>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
    </PageLayout>
  );
}
