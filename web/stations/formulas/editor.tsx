"use client";

import {
  difference,
  type FormulaSpec,
  formulaSpec,
  type GateName,
  LARGEST_LOAD_PERCENT,
  loadOnBasis,
  mustNotMix,
  type Profile,
  READY_PROFILES,
  writePercent,
} from "@hearth/core";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useMemo, useState, useTransition } from "react";
import { Field, useFields } from "@/ui/fields";
import { HeatLine } from "@/ui/heat-line";
import { Aside, Caution, Screen, Warn } from "@/ui/margin";
import { PotStrip } from "@/ui/pot-strip";
import { useUnits } from "@/ui/units";
import { type Saved, saveFormula } from "./commands";
import { OWN, profileText, rulesFor } from "./editor-fields";
import { type VersionShown, Versions } from "./versions";

interface WaxChoice {
  id: string;
  name: string;
  family: string;
  maxLoadPpm: number | null;
}
interface OilChoice {
  id: string;
  name: string;
  kind: "fragrance" | "essential oil";
  maxLoadPpm: number | null;
  flashPoint: number | null;
}

/** Essential oils are added near 54 °C: common practice, no source. */
const HOT_FOR_ESSENTIAL_OIL = 6_000;

/** Makes or changes a formula: what goes in, how it is worked, what the two disagree on. */
export function FormulaEditor(props: {
  formula: { id: string; name: string; version: number } | null;
  versions: VersionShown[];
  waxes: WaxChoice[];
  fragrances: OilChoice[];
}) {
  const { formula, versions, waxes, fragrances } = props;
  const units = useUnits();
  const router = useRouter();
  const newest = versions[0] ?? null;
  const firstProfile = READY_PROFILES.find((one) => one.families.includes(waxes[0]?.family ?? "")) ?? READY_PROFILES[0];
  const rules = useMemo(
    () =>
      rulesFor(formula?.name ?? "", newest?.spec ?? null, { wax: waxes[0]?.id ?? "", oil: fragrances[0]?.id ?? "", profile: firstProfile as Profile }, units),
    [formula?.name, newest?.spec, waxes, fragrances, firstProfile, units],
  );
  const fields = useFields(rules);
  const [expected, setExpected] = useState(formula?.version ?? null);
  const [stale, setStale] = useState<Saved["stale"]>(null);
  const [said, setSaid] = useState<{ tone: "good" | "bad"; text: string } | null>(null);
  const [busy, start] = useTransition();
  const v = fields.values;
  const wax = waxes.find((one) => one.id === v.wax) ?? null;
  const oil = fragrances.find((one) => one.id === v.fragrance) ?? null;
  const nameOf = (id: string) => [...waxes, ...fragrances].find((one) => one.id === id)?.name ?? "something no longer on the shelf";

  const basis = v.basis ?? "wax";
  const loadFits = v.load !== undefined && v.load <= LARGEST_LOAD_PERCENT[basis] * 10_000;
  const ofWax = loadFits && v.load !== undefined ? loadOnBasis(v.load, basis, "wax") : null;
  const ofTotal = loadFits && v.load !== undefined ? loadOnBasis(v.load, basis, "total") : null;
  const gates: Record<GateName, NonNullable<typeof v.heat>> | null = v.heat && v.add && v.pour ? { heat: v.heat, add: v.add, pour: v.pour } : null;

  const warnings: string[] = [];
  if (wax && ofWax !== null && wax.maxLoadPpm !== null && ofWax > wax.maxLoadPpm)
    warnings.push(
      `${writePercent(ofWax)} of the wax is above the ${writePercent(wax.maxLoadPpm)} that ${wax.name} takes: it can sweat oil, clog the wick and soot.`,
    );
  if (oil && ofWax !== null && oil.maxLoadPpm !== null && ofWax > oil.maxLoadPpm)
    warnings.push(`${writePercent(ofWax)} of the wax is above the ${writePercent(oil.maxLoadPpm)} that ${oil.name} may be used at.`);
  if (wax && wax.maxLoadPpm === null) warnings.push(`The largest load of ${wax.name} is not on the shelf, so the load cannot be checked.`);
  if (gates && v.ceiling !== undefined) {
    for (const name of ["heat", "add", "pour"] as const) {
      if (gates[name].high > v.ceiling)
        warnings.push(`The ${name} gate reaches ${units.t(gates[name].high)}, above the ceiling of ${units.t(v.ceiling)}: the wax can scorch.`);
    }
    if (gates.add.low > gates.heat.high) warnings.push(`The add gate begins at ${units.t(gates.add.low)}, above the heat gate: the pot never gets there.`);
    if (gates.pour.low > gates.add.high)
      warnings.push(`The pour gate begins at ${units.t(gates.pour.low)}, above the add gate: the pot must be heated again after the fragrance is in.`);
  }
  if (oil?.kind === "essential oil" && v.add && v.add.high > HOT_FOR_ESSENTIAL_OIL) {
    warnings.push(
      `${oil.name} is an essential oil, added at up to ${units.t(v.add.high)}: much of it is driven off. Makers add essential oils near ${units.t(5_400)}.`,
    );
  }
  const stop = wax ? mustNotMix({ wax, fragrance: oil }, units.temperature) : null;
  const flash = !stop && oil && gates && oil.flashPoint !== null && gates.add.high > oil.flashPoint;

  const specNow = (): FormulaSpec | null => {
    const all = fields.check();
    if (!all) return null;
    const parsed = formulaSpec.safeParse({
      waxes: [{ id: all.wax, share: 1 }],
      fragrances: all.fragrance === null ? [] : [{ id: all.fragrance, share: 1 }],
      basis: all.basis,
      loadPpm: all.load,
      notes: all.notes,
      profile: {
        name: all.profileName,
        heat: all.heat,
        add: all.add,
        pour: all.pour,
        ceiling: all.ceiling,
        stirSeconds: all.stirSeconds,
        setSeconds: all.setSeconds,
        leastCureSeconds: all.leastCureSeconds,
        recommendedCureSeconds: all.recommendedCureSeconds,
        reason: newest?.spec.profile.reason ?? "",
      },
    });
    if (parsed.success) return parsed.data;
    const at: Record<string, string> = { loadPpm: "load", fragrances: "fragrance", waxes: "wax" };
    fields.refuse(Object.fromEntries(parsed.error.issues.map((issue) => [at[String(issue.path[0])] ?? String(issue.path.at(-1)), [issue.message]])));
    return null;
  };

  const save = (over: number | null) => {
    const spec = specNow();
    if (!spec) return setSaid(null);
    start(async () => {
      const outcome = await saveFormula({ id: formula?.id ?? null, expectedVersion: over, name: fields.values.name, spec }).catch(() => null);
      if (!outcome) return setSaid({ tone: "bad", text: "The program cannot be reached just now. Nothing you typed is lost: try again in a moment." });
      if (!outcome.ok) {
        fields.refuse(outcome.fields);
        return setSaid({ tone: "bad", text: outcome.message });
      }
      if (outcome.value.stale) {
        setSaid(null);
        return setStale(outcome.value.stale);
      }
      setStale(null);
      setExpected(outcome.value.version);
      setSaid({
        tone: "good",
        text: outcome.value.next
          ? `Saved as version ${outcome.value.number}: the one before has been used, so it stays as it was.`
          : `Saved, version ${outcome.value.number}.`,
      });
      if (formula) router.refresh();
      else router.push(`/formulas/${outcome.value.id}`);
    });
  };

  const pick = (id: string) => {
    const ready = READY_PROFILES.find((one) => one.id === id);
    if (ready) fields.fill({ profileName: ready.name, ...profileText(ready, units) });
  };
  /** Another family of wax brings a profile that suits it, unless the profile has been made the maker's own. */
  const chooseWax = (id: string) => {
    fields.set("wax", id);
    const family = waxes.find((one) => one.id === id)?.family ?? "";
    const current = READY_PROFILES.find((one) => one.name === fields.text("profileName"));
    const untouched = current && Object.entries(profileText(current, units)).every(([name, text]) => fields.text(name as "heat") === text);
    const fitting = READY_PROFILES.find((one) => one.families.includes(family));
    if (untouched && fitting && !current.families.includes(family)) pick(fitting.id);
  };
  const picked = READY_PROFILES.find((one) => one.name === fields.text("profileName"));
  const suited = READY_PROFILES.filter((one) => one.families.includes(wax?.family ?? ""));
  const others = READY_PROFILES.filter((one) => !suited.includes(one));

  return (
    <Screen
      title={formula ? formula.name : "New formula"}
      lead={
        newest
          ? `Version ${newest.number}${newest.batches > 0 ? `, used in ${newest.batches} ${newest.batches === 1 ? "batch" : "batches"}: a change makes version ${newest.number + 1}` : ", not used yet"}`
          : "One wax, one fragrance, a load, and how the wax is worked."
      }
      actions={
        formula ? (
          <Link className="press" href={`/plan?formula=${formula.id}`}>
            Plan a batch from it
          </Link>
        ) : null
      }
      side={
        <>
          {stop ? <Caution title="Not in gel">{stop}</Caution> : null}
          {warnings.map((text) => (
            <Warn key={text}>{text}</Warn>
          ))}
          {flash && oil?.flashPoint != null ? (
            <Aside title="Flash point">
              {oil.name} has a flash point of {units.t(oil.flashPoint)}, below the top of the add gate. Some makers never add above it; others hold that it is a
              shipping figure, since the blend flashes far higher. Follow the supplier's sheet.
            </Aside>
          ) : null}
          <Aside title="Which 10 %?">
            Of the wax: 100 g of wax and 10 g of fragrance. Of the total: 90 g and 10 g. Most suppliers mean the wax. Both are always shown here.
          </Aside>
          {picked ? <Aside title={`Why ${picked.name}`}>{picked.reason} The supplier's sheet comes first.</Aside> : null}
          <Caution title="Hot wax">
            Keep under {v.ceiling === undefined ? "the ceiling" : units.t(v.ceiling)} and never leave it. Smother a wax fire; never use water.
          </Caution>
        </>
      }
    >
      <form
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
              <Field
                label="Wax"
                {...fields.bind("wax")}
                onValue={chooseWax}
                options={
                  waxes.length ? waxes.map((one) => ({ value: one.id, label: `${one.name} (${one.family})` })) : [{ value: "", label: "none on the shelf yet" }]
                }
              />
              <Field
                label="Fragrance"
                {...fields.bind("fragrance")}
                options={[...fragrances.map((one) => ({ value: one.id, label: one.name })), { value: "", label: "none: unscented" }]}
              />
              <div className="grid grid-cols-[1fr_1.2fr] gap-4">
                <Field
                  label="Load"
                  unit="%"
                  {...fields.bind("load")}
                  large
                  inputMode="decimal"
                  hint={wax?.maxLoadPpm ? `This wax takes up to ${writePercent(wax.maxLoadPpm)} of the wax.` : undefined}
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
                    <span className="figure text-[26px]">{writePercent(ofWax)}</span> of the wax ={" "}
                    <span className="figure text-[26px]">{writePercent(ofTotal)}</span> of the total
                  </>
                )}
              </p>
              {wax && ofTotal !== null ? (
                <PotStrip
                  parts={[
                    { name: wax.name, kind: "wax", mg: 1_000_000 - ofTotal },
                    ...(oil && ofTotal > 0 ? [{ name: oil.name, kind: "fragrance" as const, mg: ofTotal }] : []),
                  ]}
                />
              ) : null}
            </div>
          </section>
          <section className="sheet">
            <h2 className="mb-2">How it is worked</h2>
            <div className="mb-2 grid grid-cols-2 gap-4">
              <div>
                <label htmlFor="ready" className="mb-1 block text-[15px] font-semibold">
                  Ready-made profile
                </label>
                <select id="ready" className="entry" value={picked?.id ?? OWN} onChange={(event) => pick(event.target.value)}>
                  <option value={OWN}>my own</option>
                  <optgroup label={`For ${wax?.family ?? "this wax"}`}>
                    {suited.map((one) => (
                      <option key={one.id} value={one.id}>
                        {one.name}
                      </option>
                    ))}
                  </optgroup>
                  <optgroup label="For other waxes">
                    {others.map((one) => (
                      <option key={one.id} value={one.id}>
                        {one.name}
                      </option>
                    ))}
                  </optgroup>
                </select>
              </div>
              <Field label="Profile name" {...fields.bind("profileName")} />
            </div>
            {gates && v.ceiling !== undefined ? <HeatLine gates={gates} ceiling={v.ceiling} marks={[]} height={150} label="The three gates" /> : null}
            <div className="mt-2 grid grid-cols-2 gap-x-4 gap-y-1 sm:grid-cols-4">
              <Field label="Heat to" unit={`°${units.temperature}`} {...fields.bind("heat")} />
              <Field label="Add at" unit={`°${units.temperature}`} {...fields.bind("add")} />
              <Field label="Pour at" unit={`°${units.temperature}`} {...fields.bind("pour")} />
              <Field label="Ceiling" unit={`°${units.temperature}`} {...fields.bind("ceiling")} />
              <Field label="Stir for" {...fields.bind("stirSeconds")} />
              <Field label="Set for" {...fields.bind("setSeconds")} />
              <Field label="Least cure" {...fields.bind("leastCureSeconds")} />
              <Field label="Better cure" {...fields.bind("recommendedCureSeconds")} />
            </div>
            <div className="mt-2">
              <Field label="Notes" lines={2} {...fields.bind("notes")} />
            </div>
            {said ? (
              <p role="status" className={`mt-2 font-semibold ${said.tone === "good" ? "text-inside" : "text-hot"}`}>
                {said.tone === "good" ? "✓ " : "▲ "}
                {said.text}
              </p>
            ) : null}
            <button type="submit" className="act mt-2" data-next-step disabled={busy}>
              {busy ? "Saving" : "Save the formula"}
            </button>
          </section>
        </div>
        {stale ? (
          <section role="alert" className="my-3 border-l-[6px] border-hot bg-hot-fill px-4 py-3">
            <h3>{stale.by ?? "Somebody"} saved this formula in the meantime. Your typing is kept; nothing was written.</h3>
            <ul className="my-2 list-disc pl-5">
              {(newest ? difference(newest.spec, stale.spec, nameOf, units.temperature) : []).map((change) => (
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
      <Versions versions={versions} nameOf={nameOf} />
    </Screen>
  );
}
