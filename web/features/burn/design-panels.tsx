"use client";

import { PROTOCOLS, VARIED } from "@hearth/core";
import { useState } from "react";
import { Chooser } from "@/forms/chooser";
import { Field } from "@/forms/fields";
import { Link, useRouter } from "@/ui/address";
import { Aside, Caution, Warn } from "@/ui/side-notes";
import { Toggle } from "@/ui/toggle";
import { useNow, useUnits } from "@/ui/units";
import { variesWick } from "./design-model";
import type { DesignState } from "./use-design";

/** What is to be said of a trial before it begins, and what was tried in its vessel before. */
export function DesignMargin({ state: { design, container, warnings } }: { state: DesignState }) {
  const units = useUnits();
  if (!container) return null;
  return (
    <>
      {warnings.map((warning) => (
        <Warn key={warning}>{warning}</Warn>
      ))}
      <Aside title="Why these wicks">
        By the inner diameter at the wax line, {units.len(Math.round(container.innerTopUm))} at the rim and {units.len(container.innerBottomUm)} at the bottom,
        the wax family and the load; wicks that passed here come first. Common practice, no source: the burn test decides.
      </Aside>
      {design.tried.length > 0 ? (
        <Aside title={`Tried in ${container.name}`}>
          {design.tried.slice(0, 6).map((item) => (
            <span key={`${item.trialId}${item.variant}`} className="block">
              <Link className="underline" href={`/burn/${item.trialId}?view=verdict`}>
                trial {item.trial}
              </Link>
              : {item.says},{" "}
              {item.decided === "passed"
                ? item.half
                  ? "half passed"
                  : "passed"
                : item.decided === "failed"
                  ? "failed"
                  : item.safe === false
                    ? "not safe"
                    : "open"}
            </span>
          ))}
        </Aside>
      ) : null}
      {container.testJars > 0 ? (
        <Aside title={`${container.testJars} test jars of ${container.name}`}>Chipped pieces are used first; what is for sale stays for sale.</Aside>
      ) : null}
      <Caution title="Test candles are not for sale">Mark each with wax, wick, fragrance, load and date. They are not in stock for sale.</Caution>
    </>
  );
}

/** The product, or the formula and the vessel, the wick that all have, and the trial's name. */
export function WhatIsTried({ state }: { state: DesignState }) {
  const units = useUnits();
  const router = useRouter();
  const { design, container, from, varies, wickOfAll, setWickId, best, fields } = state;
  if (!design.formula || !container) return null;
  const go = (query: Record<string, string>) => router.push(`/burn/new?${new URLSearchParams(query)}`);
  return (
    <section className="sheet">
      <h2>What to test</h2>
      <div className="mt-2 grid gap-x-4 gap-y-2 sm:grid-cols-2">
        <Chooser
          label="Product"
          value={design.product?.id ?? ""}
          options={[{ value: "", name: "none: a formula in a vessel" }, ...design.products.map((product) => ({ value: product.id, name: product.name }))]}
          onValue={(id) => go(id ? { product: id } : { formula: design.formula?.id ?? "", container: container.id })}
        />
        {design.product ? null : (
          <>
            <Chooser
              label="Formula"
              value={design.formula.id}
              options={design.formulas.map((formula) => ({ value: formula.id, name: formula.name }))}
              onValue={(id) => go({ formula: id, container: container.id })}
            />
            <Chooser
              label="Vessel"
              value={container.id}
              options={design.containers.map((container) => ({ value: container.id, name: container.name }))}
              onValue={(id) => go({ formula: design.formula?.id ?? "", container: id })}
            />
          </>
        )}
        {from === "make" && !variesWick(varies) ? (
          <Chooser
            label="Wick of all test candles"
            value={wickOfAll}
            options={design.wicks.map((wick) => ({ value: wick.id, name: wick.name, note: wick.id === best?.id ? "as now, or as proposed" : wick.kind }))}
            onValue={setWickId}
            error={wickOfAll === "" ? "Choose a wick: no test candle is poured without one." : ""}
          />
        ) : null}
        <Field label="Name of the trial" {...fields.bind("name")} />
      </div>
      <p className="mt-1 text-[15px] text-soft">
        {design.formula.name} in {container.name}, load {units.percent(design.formula.loadPpm, 1)} of the wax.
      </p>
    </section>
  );
}

/** Where the test candles come from, and what varies between them. */
export function WhatVaries({ state: { from, setFrom, varies, vary } }: { state: DesignState }) {
  return (
    <>
      <fieldset className="mt-4">
        <legend className="font-semibold">Test candles</legend>
        <div className="mt-1 flex flex-wrap gap-1">
          {(
            [
              ["make", "pour new candles"],
              ["rack", "use jars from the rack"],
            ] as const
          ).map(([value, says]) => (
            <Toggle key={value} on={from === value} onPress={() => setFrom(value)}>
              {says}
            </Toggle>
          ))}
        </div>
      </fieldset>
      <fieldset className="mt-4">
        <legend className="font-semibold">What varies</legend>
        <div className="mt-1 flex flex-wrap gap-1">
          {[...VARIED, null].map((item) => (
            <Toggle key={item ?? "nothing"} on={varies === item} onPress={() => vary(item)}>
              {item ?? "nothing, one test"}
            </Toggle>
          ))}
        </div>
      </fieldset>
    </>
  );
}

const LADDER_LABELS = {
  load: "Loads, % of the wax",
  blend: "Shares of it, % of the wax",
  additive: "Doses, % of the wax",
  dye: "Drops per lb of wax",
} as const;
const LADDER_MATERIALS = { load: "", blend: "Second wax", additive: "Additive", dye: "Dye" } as const;

/** The steps of a ladder as they are typed, of what, and whether one melt serves them all. */
function LadderSteps({ state: { design, ladder, ladderNames, ladderMaterial, setLadderId, oneMelt, setOneMelt, fields } }: { state: DesignState }) {
  if (!ladder) return null;
  return (
    <div className="mt-2 grid gap-x-4 sm:grid-cols-2">
      {ladder === "load" ? null : (
        <Chooser
          label={LADDER_MATERIALS[ladder]}
          value={ladderMaterial?.id ?? ""}
          options={ladderNames.map((item) => ({ value: item.id, name: item.name }))}
          onValue={setLadderId}
          error={ladderMaterial ? "" : "There is none on the shelf. Add it there first."}
        />
      )}
      <Field
        label={LADDER_LABELS[ladder]}
        {...fields.bind("ladder")}
        hint={ladder === "load" ? "Like 8, 10, 12: two points apart can be told apart." : "Like 20, 30, 40."}
      />
      {design.formula?.isOnePot ? (
        <label className="col-span-full flex items-start gap-3">
          <input type="checkbox" className="mt-1 h-6 w-6" checked={oneMelt} onChange={(event) => setOneMelt(event.target.checked)} />
          <span>
            <span className="font-semibold">All from one melt</span>
            <span className="block text-[15px] text-soft">The least is poured first; what is left is dosed further for the next.</span>
          </span>
        </label>
      ) : null}
    </div>
  );
}

/** The variants that are worth trying, how many of each, and how full. */
export function WorthTrying({ state }: { state: DesignState }) {
  const { shown, proposed, pick, fields, half, setHalf } = state;
  const [all, setAll] = useState(false);
  return (
    <section className="mt-4" aria-label="Variants">
      <h2>Worth trying</h2>
      <LadderSteps state={state} />
      <ul className="mt-1 border-t-2 border-ink">
        {(all ? shown : proposed).map((item) => (
          <li key={item.key} className="border-b border-line">
            <label className="flex min-h-[52px] items-center gap-3 py-1">
              <input type="checkbox" className="h-6 w-6" checked={item.chosen} onChange={(event) => pick(item.key, event.target.checked)} />
              <span>
                <strong>{item.says}</strong>
                {item.why ? <span className="block text-[15px] text-soft">{item.why}</span> : null}
              </span>
            </label>
          </li>
        ))}
      </ul>
      {proposed.length === 0 ? (
        <p className="mt-1 text-soft">No wick on the shelf is listed for this diameter. Add diameters to your wicks, or choose by hand.</p>
      ) : null}
      {shown.length > proposed.length ? (
        <button type="button" className="min-h-[44px] underline" onClick={() => setAll(!all)}>
          {all ? "Suggested only" : `All ${shown.length}`}
        </button>
      ) : null}
      <div className="mt-2 grid gap-x-4 sm:grid-cols-2">
        <Field label="Test candles of each" {...fields.bind("replicates")} inputMode="numeric" />
        <label className="mt-6 flex items-start gap-3">
          <input type="checkbox" className="mt-1 h-6 w-6" checked={half} onChange={(event) => setHalf(event.target.checked)} />
          <span>
            <span className="font-semibold">Half-filled first</span>
            <span className="block text-[15px] text-soft">An early result for the lower half, with half the wax.</span>
          </span>
        </label>
      </div>
    </section>
  );
}

/** Jars on the rack that can be burned, and how many of each are. */
export function OnTheRack({ state: { design, racked, take } }: { state: DesignState }) {
  const units = useUnits();
  const now = useNow(60_000);
  return (
    <section className="mt-4" aria-label="On the rack">
      <h2>On the rack</h2>
      {design.rack.length === 0 ? <p className="text-soft">No jars with wicks on the rack.</p> : null}
      <ul className="mt-1 border-t-2 border-ink">
        {design.rack.map((item) => {
          const key = `${item.batchId} ${item.product}`;
          return (
            <li key={key} className="flex flex-wrap items-center gap-x-4 border-b border-line py-1">
              <span className="min-w-0 flex-1 basis-[220px]">
                <strong>
                  {item.number} {item.title}
                </strong>
                , {item.name}, {item.wick}
                <span className="block text-[15px] text-soft">
                  {item.left} on the rack{item.half ? ", half-filled" : ""}
                  {item.testFrom && item.testFrom > now ? `; minimum cure until ${units.dayClock(item.testFrom)}` : ""}
                </span>
              </span>
              <label className="flex items-center gap-2">
                <span className="sr-only">
                  Test candles of batch {item.number}, {item.name}, {item.wick}
                </span>
                <select className="entry !w-auto" value={racked[key] ?? 0} onChange={(event) => take(key, Number(event.target.value))}>
                  {Array.from({ length: Math.min(10, item.left) + 1 }, (_, n) => (
                    <option key={n} value={n}>
                      {n}
                    </option>
                  ))}
                </select>
              </label>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** How it is burned: the protocol, its looks and rests. */
export function HowItIsBurned({ state: { design, how, chooseProtocol, fields } }: { state: DesignState }) {
  return (
    <section className="mt-4" aria-label="Protocol">
      <h2>How it is burned</h2>
      <label className="mt-1 block">
        <span className="font-semibold">Protocol</span>
        <select className="entry" value={how} onChange={(event) => chooseProtocol(event.target.value)}>
          {design.before ? <option value="before">as in trial {design.before.number}</option> : null}
          {PROTOCOLS.map((protocol) => (
            <option key={protocol.id} value={protocol.id}>
              {protocol.name}
            </option>
          ))}
        </select>
      </label>
      <p className="text-[15px] text-soft">{PROTOCOLS.find((protocol) => protocol.id === how)?.says ?? ""}</p>
      <div className="mt-2 grid gap-x-4 sm:grid-cols-[2fr_1fr_1fr]">
        <Field
          label="Checks of each session"
          {...fields.bind("sessions")}
          lines={3}
          hint="One session on each line, in hours after lighting. The last one repeats."
        />
        <Field label="Hours of rest" {...fields.bind("rest")} inputMode="numeric" />
        <Field label="Minimum sessions" {...fields.bind("least")} inputMode="numeric" />
      </div>
      <Field label="Marks of your own" {...fields.bind("ownMarks")} hint="Scored from 0 to 10 at each check, like crackle, drips, brightness." />
    </section>
  );
}
