import type { TemperatureRange } from "../../heat/range";
import { SECONDS } from "../../units/duration";
import { fromFahrenheit, type TemperatureUnit, toFahrenheit } from "../../units/temperature";
import type { Step } from "../process";
import type { Process } from "../schema";
import { moldSteps } from "./mold-steps";
import schools from "./schools.json" with { type: "json" };

export interface PresetProcess extends Process {
  id: string;
  /** The wax families it is meant for. */
  families: readonly string[];
  /** What it makes. */
  makes: "jar" | "layers" | "pillar" | "gel" | "melts" | "tealights";
}

const centi = (ends: readonly number[]): TemperatureRange => ({ low: Math.round((ends[0] ?? 0) * 100), high: Math.round((ends[1] ?? 0) * 100) });
const hours = (n: number) => n * SECONDS.h;

/** From weighing to stirring, and down to the pour range: the same for every pot. */
const pot = (of: { heat: number[]; add: number[]; stir: number; pour: number[] }, n = 0): Step[] => {
  const end = n === 0 ? "" : `-${n + 1}`;
  const head = n === 0 ? {} : { pot: n };
  return [
    { id: `weigh${end}`, kind: "weigh", ...head },
    { id: `heat${end}`, kind: "heat", range: centi(of.heat), ...head },
    { id: `add${end}`, kind: "add", range: centi(of.add), ...head },
    { id: `stir${end}`, kind: "stir", seconds: of.stir, ...head },
    { id: `cool${end}`, kind: "cool", range: centi(of.pour), ...head },
  ];
};
const last = (set: number, least: number, recommended: number): Step[] => [
  { id: "set", kind: "set", seconds: hours(set) },
  { id: "cure", kind: "cure", least: hours(least), recommended: hours(recommended) },
];
const whole: Step = { id: "pour", kind: "pour", share: 1_000_000, by: "weight" };
const halves: Step[] = [
  { id: "pour", kind: "pour", share: 500_000, by: "weight" },
  { id: "wait", kind: "wait", least: 30 * 60, most: hours(1), for: "until the first half is skinned over" },
  { id: "pour-again", kind: "pour-again", share: 500_000, by: "weight" },
];

/** The schools of working one wax in one pour: common practice, no source. Where practice names one temperature, the range is that ± 2 °C (our choice). */
const SCHOOLS: PresetProcess[] = schools.map((school) => ({
  id: school.id,
  name: school.name,
  families: school.families,
  makes: "jar",
  reason: school.reason,
  ceiling: Math.round(school.ceiling * 100),
  steps: [...pot(school), ...("halves" in school && school.halves ? halves : [whole]), ...last(school.set, school.cure[0] ?? 0, school.cure[1] ?? 0)],
}));

const SOY = { heat: [83, 87], add: [83, 87], stir: 120, pour: [57, 63] };
const PILLAR = { heat: [79, 82], add: [77, 81], stir: 120 };
const GEL = { heat: [105, 109], add: [105, 109], stir: 120, pour: [90, 96] };

/** From the mold's filling to the shelf: a film at one hour, relief holes at two, a second pour, two hours more. */
const molded = (again: number[]): Step[] => [
  { id: "pour", kind: "pour", share: 900_000, by: "weight" },
  { id: "wait", kind: "wait", least: hours(2), most: hours(3), for: "until a firm film has formed" },
  { id: "pierce", kind: "pierce" },
  { id: "pour-again", kind: "pour-again", share: 100_000, by: "weight", range: centi(again) },
  { id: "wait-2", kind: "wait", least: hours(2), for: "until it pulls from the wall" },
  { id: "unmold", kind: "unmold" },
  { id: "finish", kind: "finish", how: "trim base and wick" },
];

/** The pour of a pot of a divided melt: it fills the products of that pot's formula. */
const pourOf = (pot: number): Step => (pot === 0 ? whole : { ...whole, id: `pour-${pot + 1}`, pot });
/** What is left of the pot before, dosed further and poured into what its own formula is for. */
const rest = (of: { heat: number[]; add: number[]; stir: number; pour: number[] }, n: number): Step[] => {
  const [weigh, ...others] = pot(of, n) as [Step, ...Step[]];
  return [{ id: `split-${n + 1}`, kind: "split", pot: n, from: n - 1 }, weigh, ...others, pourOf(n)];
};

const layers = (tilted: boolean): Step[] => [
  ...pot(SOY),
  ...(tilted ? [{ id: "tilt", kind: "tilt", degrees: 25 } as const] : []),
  { id: "pour", kind: "pour", share: 500_000, by: "height" },
  { id: "wait", kind: "wait", least: hours(3), most: hours(5), for: "until the lower layer is cold" },
  ...(tilted ? [{ id: "tilt-2", kind: "tilt", degrees: 0 } as const] : []),
  ...pot(SOY, 1),
  { id: "pour-2", kind: "pour", pot: 1, share: 500_000, by: "height" },
  ...last(24, 96, 336),
];

const others: PresetProcess[] = [
  {
    id: "jar-halves",
    name: "jar in two halves",
    families: ["soy", "paraffin", "paraffin–soy", "coconut", "blend"],
    makes: "jar",
    reason: "Half filled, half an hour, then the rest: no craters, where poured in one go the same wax makes them.",
    ceiling: 9_333,
    steps: [...pot(SOY), ...halves, ...last(24, 96, 336)],
  },
  {
    id: "straight-layers",
    name: "two straight layers",
    families: ["soy", "coconut", "paraffin", "blend"],
    makes: "layers",
    reason: "Two pots, each cold before the next: poured on warm wax, the colors run.",
    ceiling: 9_333,
    steps: layers(false),
  },
  {
    id: "tilted-layers",
    name: "two tilted layers",
    families: ["soy", "coconut", "paraffin", "blend"],
    makes: "layers",
    reason: "The vessel leans while the lower layer sets; upright again for the upper one.",
    ceiling: 9_333,
    steps: layers(true),
  },
  {
    id: "pillar-glossy",
    name: "pillar, glossy",
    families: ["paraffin"],
    makes: "pillar",
    reason: "Into a mold in a warm room; relief holes and a second pour as it shrinks.",
    ceiling: 9_333,
    steps: [...pot({ ...PILLAR, pour: [77, 81] }), ...molded([72, 76]), ...last(0, 24, 48)],
  },
  {
    id: "pillar-rustic",
    name: "pillar, rustic",
    families: ["paraffin"],
    makes: "pillar",
    reason: "A cooler pour leaves the rustic skin.",
    ceiling: 9_333,
    steps: [...pot({ ...PILLAR, pour: [69, 73] }), ...molded([67, 71]), ...last(0, 24, 48)],
  },
  {
    id: "gel",
    name: "gel, no bubbles",
    families: ["gel"],
    makes: "gel",
    reason: "Stirred slowly and poured down the tilted wall, so that no bubbles go in.",
    ceiling: 11_200,
    steps: [...pot(GEL), { id: "tilt", kind: "tilt", degrees: 30 }, whole, ...last(4, 24, 48)],
  },
  {
    id: "gel-embeds",
    name: "gel with embeds",
    families: ["gel"],
    makes: "gel",
    reason: "What is shown is laid in first, away from the wick; the gel runs down the tilted wall.",
    ceiling: 11_200,
    steps: [...pot(GEL), { id: "embed", kind: "embed", what: "glass pebbles", each: 5 }, { id: "tilt", kind: "tilt", degrees: 30 }, whole, ...last(4, 24, 48)],
  },
  {
    id: "melts",
    name: "melts, no wick",
    families: ["soy", "paraffin", "paraffin–soy", "coconut", "blend"],
    makes: "melts",
    reason: "No wick at all, so loads run higher. Out of the tray when cold.",
    ceiling: 9_333,
    steps: [...pot(SOY), whole, { id: "wait", kind: "wait", least: hours(2), for: "until cold" }, { id: "unmold", kind: "unmold" }, ...last(0, 48, 168)],
  },
  {
    id: "tealights",
    name: "tealights",
    families: ["soy", "paraffin", "paraffin–soy", "coconut", "beeswax", "blend"],
    makes: "tealights",
    reason: "Sold by weight: filled to the full net weight, in one pour.",
    ceiling: 9_333,
    steps: [...pot({ ...SOY, pour: [63, 69] }), whole, ...last(12, 48, 168)],
  },
  {
    id: "jars-and-molds",
    name: "jars and molds from one pot",
    families: ["soy", "paraffin", "paraffin–soy", "coconut", "blend"],
    makes: "jar",
    reason: "One melt for both. Jars set and are inspected; what is in molds gets its wick hole, is unmolded and wicked by a clock of its own.",
    ceiling: 9_333,
    steps: [{ id: "prepare-mold", kind: "prepare-mold", only: "molds" }, ...pot(SOY), whole, ...moldSteps(true, "molds"), ...last(24, 96, 336)],
  },
  {
    id: "silicone",
    name: "silicone molds",
    families: ["soy", "coconut", "beeswax", "blend"],
    makes: "pillar",
    reason: "Six to eight hours in a soft mold, better overnight; the wick hole is made at two hours.",
    ceiling: 9_333,
    steps: [{ id: "prepare-mold", kind: "prepare-mold" }, ...pot(SOY), whole, ...moldSteps(true), ...last(0, 96, 336)],
  },
  {
    id: "split-pot",
    name: "one melt, the rest colored or scented further",
    families: ["soy", "paraffin", "paraffin–soy", "coconut", "blend"],
    makes: "jar",
    reason: "The first product is poured as it is. What is left is dosed for what it really weighs, warmed, stirred and poured as the second.",
    ceiling: 9_333,
    steps: [...pot(SOY), pourOf(0), ...rest(SOY, 1), ...last(24, 96, 336)],
  },
  {
    id: "split-in-three",
    name: "one melt in three steps",
    families: ["soy", "paraffin", "paraffin–soy", "coconut", "beeswax", "blend"],
    makes: "jar",
    reason: "Sample cups from one melt: each is poured in turn, and what is left is dosed further for the next.",
    ceiling: 9_333,
    steps: [...pot(SOY), pourOf(0), ...rest(SOY, 1), ...rest(SOY, 2), ...last(24, 96, 336)],
  },
  {
    id: "gel-split",
    name: "gel, clear and colored from one melt",
    families: ["gel"],
    makes: "gel",
    reason: "The clear jar is poured first; a drop of dye colors the rest. Poured down the tilted wall, so that no bubbles go in.",
    ceiling: 11_200,
    steps: [
      ...pot(GEL),
      { id: "tilt", kind: "tilt", degrees: 30 },
      pourOf(0),
      { id: "split-2", kind: "split", pot: 1, from: 0 },
      { id: "weigh-2", kind: "weigh", pot: 1 },
      { id: "stir-2", kind: "stir", seconds: 60, pot: 1 },
      pourOf(1),
      ...last(4, 24, 48),
    ],
  },
];

/** Ready-made processes to start from, each editable. Ranges and times: common practice, no source; the supplier's sheet comes first. */
export const PRESET_PROCESSES: readonly PresetProcess[] = [...SCHOOLS, ...others];

/** The same process with every range on whole degrees of the reader's unit, so that what is meant in °F reads back round. */
export function inUnit<P extends Pick<Process, "ceiling" | "steps">>(of: P, unit: TemperatureUnit): P {
  if (unit === "C") return of;
  const round = (at: number) => fromFahrenheit(Math.round(toFahrenheit(at)));
  return {
    ...of,
    ceiling: round(of.ceiling),
    steps: of.steps.map((step) => ("range" in step && step.range ? { ...step, range: { low: round(step.range.low), high: round(step.range.high) } } : step)),
  };
}

/** Returns a ready-made process as a formula keeps it. */
export const processFrom = ({ id: _id, families: _families, makes: _makes, ...rest }: PresetProcess): Process => ({
  ...rest,
  steps: rest.steps.map((step) => ({ ...step })),
});
