import {
  type FormulaSpec,
  good,
  LARGEST_LOAD_PERCENT,
  type LoadBasis,
  type Profile,
  parseDuration,
  parseGate,
  parsePercent,
  parseTemperature,
  writeDuration,
  writePercent,
} from "@hearth/core";
import { type FieldRule, named, words } from "@/ui/fields";
import type { Writers } from "@/ui/units";

const duration = (unit: "min" | "h" | "d") => (text: string) => parseDuration(text, unit);
export const OWN = "own";

/** A gate without its unit, which stands in the label. */
const bare = (gate: string) => gate.replace(/ °[CF]$/, "");

export function profileText(profile: Profile, units: Writers) {
  return {
    heat: bare(units.gate(profile.heat)),
    add: bare(units.gate(profile.add)),
    pour: bare(units.gate(profile.pour)),
    ceiling: units.tParts(profile.ceiling).figure,
    stirSeconds: writeDuration(profile.stirSeconds),
    setSeconds: writeDuration(profile.setSeconds),
    leastCureSeconds: writeDuration(profile.leastCureSeconds),
    recommendedCureSeconds: writeDuration(profile.recommendedCureSeconds),
  };
}

export function rulesFor(name: string, spec: FormulaSpec | null, first: { wax: string; oil: string; profile: Profile }, units: Writers) {
  const shown = profileText(spec?.profile ?? first.profile, units);
  const unit = units.temperature;
  const gate = (initial: string) => ({ initial, parse: (text: string) => parseGate(text, unit) });
  return {
    name: named("the formula", name),
    wax: {
      initial: spec?.waxes[0]?.id ?? first.wax,
      parse: (text: string) => (text ? good(text) : { ok: false as const, message: "Choose a wax. The shelf has none yet: add one there first." }),
    },
    fragrance: { initial: spec ? (spec.fragrances[0]?.id ?? "") : first.oil, parse: (text: string) => good(text === "" ? null : text) },
    basis: { initial: spec?.basis ?? "wax", parse: (text: string) => good(text as LoadBasis) },
    load: {
      initial: spec ? writePercent(spec.loadPpm, 3).replace(" %", "") : "8",
      parse: (text: string) => parsePercent(text, { least: 0, most: LARGEST_LOAD_PERCENT.wax, name: "a load" }),
    },
    profileName: named("the profile", spec?.profile.name ?? first.profile.name),
    heat: gate(shown.heat),
    add: gate(shown.add),
    pour: gate(shown.pour),
    ceiling: { initial: shown.ceiling, parse: (text: string) => parseTemperature(text, unit) },
    stirSeconds: { initial: shown.stirSeconds, parse: duration("min") },
    setSeconds: { initial: shown.setSeconds, parse: duration("h") },
    leastCureSeconds: { initial: shown.leastCureSeconds, parse: duration("d") },
    recommendedCureSeconds: { initial: shown.recommendedCureSeconds, parse: duration("d") },
    notes: words(spec?.notes ?? ""),
  } satisfies Record<string, FieldRule<unknown>>;
}
