"use client";

import { PROTOCOLS, type Protocol, protocol as protocolSchema, readSessions, VARIED, type Varied, writeSessions } from "@hearth/core";
import { useMemo, useRef, useState } from "react";
import { v7 } from "uuid";
import { ask } from "@/forms/ask";
import { Chooser } from "@/forms/chooser";
import { Field, named, useFields } from "@/forms/fields";
import { countRule } from "@/forms/rules";
import { usePlace } from "@/log/place";
import type { Design } from "@/server/trial-design";
import { Link, useRouter } from "@/ui/address";
import { Aside, Caution, Empty, Screen, Warn } from "@/ui/margin";
import { Said } from "@/ui/said";
import { Toggle } from "@/ui/toggle";
import { useUnits } from "@/ui/units";
import { beginTrial } from "./commands";
import { askedBy, bestWick, designWarnings, draftsFor, nameFor, variesWick } from "./design-model";

type From = "make" | "rack";

/** One thing is varied, the rest held: what is burned against what, how, and by which protocol. */
export function DesignTrial({ design }: { design: Design }) {
  const router = useRouter();
  const place = usePlace();
  const units = useUnits();
  const asks = askedBy(design);
  const [trialId] = useState(() => v7());
  const body = design.bodies.find((one) => one.id === design.bodyId) ?? design.bodies[0];
  const full = asks?.what === "test_full";
  const [varies, setVaries] = useState<Varied | null>(full ? null : (asks?.varies ?? (design.before ? design.before.plan.varies : "wick size")));
  const [from, setFrom] = useState<From>("make");
  const [half, setHalf] = useState(false);
  const [wickId, setWickId] = useState<string | null>(null);
  const best = useMemo(() => (body ? bestWick(design, body) : null), [design, body]);
  const wickOfAll = wickId ?? best?.id ?? "";
  const drafts = useMemo(
    () => (body ? draftsFor(design, body, varies, wickId ? { id: wickId, count: best?.count ?? body.wicks ?? 1 } : null) : []),
    [design, body, varies, wickId, best?.count],
  );
  const [picked, setPicked] = useState<Record<string, boolean>>({});
  const [racked, setRacked] = useState<Record<string, number>>({});
  const [all, setAll] = useState(false);
  const [how, setHow] = useState<string>(design.before ? "before" : (PROTOCOLS[0]?.id ?? ""));
  const ready = (id: string): Protocol =>
    id === "before" && design.before ? design.before.protocol : protocolSchema.parse(PROTOCOLS.find((one) => one.id === id) ?? PROTOCOLS[0]);
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState("");
  const suggested = nameFor(design, body, varies);
  const lastName = useRef(suggested);
  const rules = useMemo(
    () => ({
      name: named("the trial", suggested),
      doubles: countRule({ least: 1, most: 10, name: "testers of each" }, "2"),
      sessions: { initial: writeSessions(ready(how).sessions), parse: readSessions },
      rest: countRule({ least: 0, most: 336, name: "hours of rest" }, String(ready(how).restHours)),
      least: countRule({ least: 1, most: 20, name: "sessions" }, String(ready(how).least)),
    }),
    // The rules follow what is chosen; what was typed stays.
    [suggested, how],
  );
  const fields = useFields(rules);
  if (!design.formula || !body)
    return (
      <Screen title="Design a trial">
        <Empty
          title="Nothing to burn yet"
          action={
            <Link className="act" href={design.formula ? "/shelf?kind=vessel" : "/formulas/new"} data-next-step>
              {design.formula ? "Put a vessel on the shelf" : "Write a formula"}
            </Link>
          }
        >
          <p>A trial is made of a formula in a vessel, and of wicks to try.</p>
        </Empty>
      </Screen>
    );
  const isPicked = (key: string, chosen: boolean) => picked[key] ?? chosen;
  const shown = drafts.map((one) => ({ ...one, chosen: isPicked(one.key, one.chosen) }));
  const chosen = shown.filter((one) => one.chosen);
  const proposed = shown.filter((one) => one.why !== "" || one.chosen);
  const doubles = fields.values.doubles ?? 2;
  const warnings = from === "make" ? designWarnings(design, varies, shown, doubles, half) : [];
  const go = (query: Record<string, string>) => router.push(`/burn/new?${new URLSearchParams(query)}`);
  const vary = (to: Varied | null) => {
    setVaries(to);
    setPicked({});
    // A name that was not typed over follows.
    if (fields.text("name") === lastName.current) {
      lastName.current = nameFor(design, body, to);
      fields.set("name", lastName.current);
    }
  };
  const chooseProtocol = (id: string) => {
    setHow(id);
    const to = ready(id);
    fields.fill({ sessions: writeSessions(to.sessions), rest: String(to.restHours), least: String(to.least) });
  };
  const begin = async () => {
    const v = fields.check();
    if (!v) return;
    const options =
      from === "make"
        ? chosen.map((one) => ({
            from: "make",
            formulaVersionId: design.formula?.versionId,
            body: one.body.body,
            bodyId: one.body.id,
            wick: one.wick ? { id: one.wick.id, count: one.wick.count } : null,
            testers: v.doubles,
            half,
            change: { ...one.change },
          }))
        : design.rack.flatMap((one) => {
            const n = racked[`${one.batchId} ${one.product}`] ?? 0;
            return n > 0 ? [{ from: "rack", batchId: one.batchId, product: one.product, testers: n }] : [];
          });
    if (options.length === 0) return setSaid("Choose at least one to burn.");
    if (options.some((one) => one.from === "make" && "wick" in one && !one.wick))
      return setSaid("Choose the wick that they burn with: without it a burn says nothing.");
    setBusy(true);
    const base = ready(how);
    const same = writeSessions(base.sessions) === writeSessions(v.sessions) && base.restHours === v.rest && base.least === v.least;
    const outcome = await ask(
      beginTrial(place, {
        trialId,
        name: v.name,
        varies,
        protocol: { name: same ? base.name : `${base.name}, changed`, sessions: v.sessions, restHours: v.rest, least: v.least, toEnd: base.toEnd },
        productId: design.product?.id ?? null,
        after:
          design.before && asks
            ? { id: design.before.id, name: `Trial ${design.before.number}, ${design.before.name}`.slice(0, 160), why: asks.why.slice(0, 600) }
            : null,
        options,
      }),
    );
    setBusy(false);
    if (!outcome.ok) {
      fields.refuse(outcome.fields);
      return setSaid(outcome.message);
    }
    router.push(outcome.value.batches.length > 0 ? `/bench/${outcome.value.batches[0]}` : `/burn/${outcome.value.id}`);
  };
  return (
    <Screen
      title="Design a trial"
      lead={asks ? `After trial ${design.before?.number}: ${asks.why}` : "One thing varied, the rest held; each twice."}
      side={
        <>
          {warnings.map((one) => (
            <Warn key={one}>{one}</Warn>
          ))}
          <Aside title="Why these wicks">
            By the inner diameter at the wax line, {units.len(Math.round(body.innerTopUm))} at the rim and {units.len(body.innerBottomUm)} at the bottom, the
            family of the wax and the load; what passed here before comes first. Rules of the trade, no source: the burn decides.
          </Aside>
          {design.tried.length > 0 ? (
            <Aside title={`Tried in ${body.name}`}>
              {design.tried.slice(0, 6).map((one) => (
                <span key={`${one.trialId}${one.option}`} className="block">
                  <Link className="underline" href={`/burn/${one.trialId}?view=verdict`}>
                    trial {one.trial}
                  </Link>
                  : {one.says},{" "}
                  {one.decided === "passed"
                    ? one.half
                      ? "half passed"
                      : "passed"
                    : one.decided === "failed"
                      ? "failed"
                      : one.safe === false
                        ? "not safe"
                        : "open"}
                </span>
              ))}
            </Aside>
          ) : null}
          <Caution title="Testers are not for sale">Mark every one with wax, wick, fragrance, load and date. They are kept out of what may be sold.</Caution>
        </>
      }
    >
      <form
        ref={fields.form}
        onSubmit={(event) => {
          event.preventDefault();
          void begin();
        }}
      >
        <section className="sheet">
          <h2>What is tried</h2>
          <div className="mt-2 grid gap-x-4 gap-y-2 sm:grid-cols-2">
            <Chooser
              label="Product"
              value={design.product?.id ?? ""}
              options={[{ value: "", name: "none: a formula in a vessel" }, ...design.products.map((one) => ({ value: one.id, name: one.name }))]}
              onValue={(id) => go(id ? { product: id } : { formula: design.formula?.id ?? "", body: body.id })}
            />
            {design.product ? null : (
              <>
                <Chooser
                  label="Formula"
                  value={design.formula.id}
                  options={design.formulas.map((one) => ({ value: one.id, name: one.name }))}
                  onValue={(id) => go({ formula: id, body: body.id })}
                />
                <Chooser
                  label="Vessel"
                  value={body.id}
                  options={design.bodies.map((one) => ({ value: one.id, name: one.name }))}
                  onValue={(id) => go({ formula: design.formula?.id ?? "", body: id })}
                />
              </>
            )}
            {from === "make" && !variesWick(varies) ? (
              <Chooser
                label="Wick of all of them"
                value={wickOfAll}
                options={design.wicks.map((one) => ({ value: one.id, name: one.name, note: one.id === best?.id ? "as now, or as proposed" : one.kind }))}
                onValue={setWickId}
                error={wickOfAll === "" ? "Choose a wick: no test candle is poured without one." : ""}
              />
            ) : null}
            <Field label="Name of the trial" {...fields.bind("name")} />
          </div>
          <p className="mt-1 text-[15px] text-soft">
            {design.formula.name} in {body.name}, load {units.percent(design.formula.loadPpm, 1)} of the wax.
          </p>
        </section>
        <fieldset className="mt-4">
          <legend className="font-semibold">Testers</legend>
          <div className="mt-1 flex flex-wrap gap-1">
            {(
              [
                ["make", "pour new ones"],
                ["rack", "take some off the rack"],
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
            {[...VARIED, null].map((one) => (
              <Toggle key={one ?? "nothing"} on={varies === one} onPress={() => vary(one)}>
                {one ?? "nothing, one test"}
              </Toggle>
            ))}
          </div>
        </fieldset>
        {from === "make" ? (
          <section className="mt-4" aria-label="Options">
            <h2>Worth trying</h2>
            <ul className="mt-1 border-t-2 border-ink">
              {(all ? shown : proposed).map((one) => (
                <li key={one.key} className="border-b border-line">
                  <label className="flex min-h-[52px] items-center gap-3 py-1">
                    <input
                      type="checkbox"
                      className="h-6 w-6"
                      checked={one.chosen}
                      onChange={(event) => setPicked((old) => ({ ...old, [one.key]: event.target.checked }))}
                    />
                    <span>
                      <strong>{one.says}</strong>
                      {one.why ? <span className="block text-[15px] text-soft">{one.why}</span> : null}
                    </span>
                  </label>
                </li>
              ))}
            </ul>
            {proposed.length === 0 ? (
              <p className="mt-1 text-soft">Nothing on the shelf says that it suits. Give wicks their span of diameters, or choose by hand.</p>
            ) : null}
            {shown.length > proposed.length ? (
              <button type="button" className="min-h-[44px] underline" onClick={() => setAll(!all)}>
                {all ? "Only what is proposed" : `All ${shown.length}`}
              </button>
            ) : null}
            <div className="mt-2 grid gap-x-4 sm:grid-cols-2">
              <Field label="Testers of each" {...fields.bind("doubles")} inputMode="numeric" />
              <label className="mt-6 flex items-start gap-3">
                <input type="checkbox" className="mt-1 h-6 w-6" checked={half} onChange={(event) => setHalf(event.target.checked)} />
                <span>
                  <span className="font-semibold">Half-filled first</span>
                  <span className="block text-[15px] text-soft">An early look at the lower half, for half the wax.</span>
                </span>
              </label>
            </div>
          </section>
        ) : (
          <section className="mt-4" aria-label="On the rack">
            <h2>On the rack</h2>
            {design.rack.length === 0 ? <p className="text-soft">No jar with a wick stands there now.</p> : null}
            <ul className="mt-1 border-t-2 border-ink">
              {design.rack.map((one) => {
                const key = `${one.batchId} ${one.product}`;
                return (
                  <li key={key} className="flex flex-wrap items-center gap-x-4 border-b border-line py-1">
                    <span className="min-w-0 flex-1 basis-[220px]">
                      <strong>
                        {one.number} {one.title}
                      </strong>
                      , {one.name}, {one.wick}
                      <span className="block text-[15px] text-soft">
                        {one.left} there{one.half ? ", half-filled" : ""}
                        {one.testFrom ? `; least cure until ${units.dayClock(one.testFrom)}` : ""}
                      </span>
                    </span>
                    <label className="flex items-center gap-2">
                      <span className="sr-only">
                        Testers of batch {one.number}, {one.name}, {one.wick}
                      </span>
                      <select
                        className="entry !w-auto"
                        value={racked[key] ?? 0}
                        onChange={(event) => setRacked((old) => ({ ...old, [key]: Number(event.target.value) }))}
                      >
                        {Array.from({ length: Math.min(10, one.left) + 1 }, (_, n) => (
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
        )}
        <section className="mt-4" aria-label="Protocol">
          <h2>How it is burned</h2>
          <label className="mt-1 block">
            <span className="font-semibold">Protocol</span>
            <select className="entry" value={how} onChange={(event) => chooseProtocol(event.target.value)}>
              {design.before ? <option value="before">as in trial {design.before.number}</option> : null}
              {PROTOCOLS.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
          <p className="text-[15px] text-soft">{PROTOCOLS.find((one) => one.id === how)?.says ?? ""}</p>
          <div className="mt-2 grid gap-x-4 sm:grid-cols-[2fr_1fr_1fr]">
            <Field
              label="Looks of each session"
              {...fields.bind("sessions")}
              lines={3}
              hint="A session a line, hours after lighting. The last one repeats to the end."
            />
            <Field label="Hours of rest" {...fields.bind("rest")} inputMode="numeric" />
            <Field label="Sessions at least" {...fields.bind("least")} inputMode="numeric" />
          </div>
        </section>
        <Said>{said}</Said>
        <button type="submit" className="act mt-4 w-full sm:w-auto" data-next-step disabled={busy}>
          {from === "make"
            ? `Begin, and pour ${chosen.length * doubles} ${chosen.length * doubles === 1 ? "tester" : "testers"}`
            : `Begin with ${Object.values(racked).reduce((a, b) => a + b, 0)} from the rack`}
        </button>
      </form>
    </Screen>
  );
}
