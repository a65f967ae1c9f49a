import { z } from "zod";
import { DEFECTS, defectOf } from "../defects/defects";
import FAMILIES from "../recipe/families.json" with { type: "json" };
import table from "./causes.json" with { type: "json" };
import { type DiagnosisRecord, keyOf, RECORD_KEY_NAMES, type RecordKeyName } from "./record";
import { diagnosisRecord } from "./schema";

export type WaxFamily = keyof typeof FAMILIES;

/** What a cause is compared with: a figure, or the name of a limit that follows from wax, process or record. */
export type CauseLimit = number | LimitName;
export const LIMIT_NAMES = [
  "pour_low",
  "pour_high",
  "add_low",
  "add_high",
  "ceiling",
  "load_low",
  "load_high",
  "load_most",
  "essential_most",
  "dye_most",
  "stir_least",
  "cure_least",
  "cure_recommended",
  "trim_most",
  "as_tall_as_wide",
] as const;
export type LimitName = (typeof LIMIT_NAMES)[number];
export type Test = { above: CauseLimit } | { below: CauseLimit } | { is: boolean } | { family: string[] };
/** One change: to a figure or a choice, by so many steps, or to what the name of a rule says. */
export type CauseChange = boolean | number | { step: number } | LimitName | "pour_middle" | "add_middle" | "load_down" | "load_up" | "heat_most" | "dye_up";

/** One known cause of a flaw, as data: when the record supports it, why it does so, and what one would change. */
export interface Cause {
  defect: string;
  id: string;
  /** As a maker would name it. */
  words: string;
  /** What of the record it rests on; null if only wax or nothing can tell. */
  key: RecordKeyName | null;
  test: Test | null;
  reason: string;
  change?: CauseChange;
  /** Not a mistake: the wax is like that. */
  natural?: boolean;
}

/** Causes of every flaw, most likely first. Common practice, no source. */
export const CAUSES = table as readonly Cause[];

const percentOf = (ppm: number) => ppm / 10_000;
const range = z
  .tuple([z.number().min(-50).max(400), z.number().min(-50).max(400)])
  .refine(([low, high]) => low <= high, "The lower end comes first.")
  .optional();
const family = z
  .string()
  .transform((text) =>
    text
      .trim()
      .toLowerCase()
      .replaceAll(/[-_ –]+/g, "–"),
  )
  .pipe(z.enum(Object.keys(FAMILIES) as [WaxFamily, ...WaxFamily[]], { error: `One of: ${Object.keys(FAMILIES).join(", ")}.` }));

export const diagnoseRequest = z.object({
  wax_family: family.optional().describe(`one of ${Object.keys(FAMILIES).join(", ")}; a hyphen does for the dash`),
  defect: z
    .string()
    .refine((text) => defectOf(text) !== undefined, `One of: ${DEFECTS.map((defect) => defect.id).join(", ")}.`)
    .describe(`one of ${DEFECTS.map((defect) => defect.id).join(", ")}`),
  ranges: z
    .object({
      heat_c: range,
      add_c: range,
      pour_c: range,
      ceiling_c: z.number().min(-50).max(400).optional(),
      stir_minutes: z.number().min(0).max(600).optional().describe("the least that the process asks for"),
      cure_days: z
        .tuple([z.number().min(0), z.number().min(0)])
        .optional()
        .describe("least and recommended"),
    })
    .default({}),
  record: diagnosisRecord.default({}),
});
export type DiagnoseRequest = z.output<typeof diagnoseRequest>;

export const VERDICTS = ["supported", "contradicted", "not_recorded"] as const;
export type Verdict = (typeof VERDICTS)[number];
const scalar = z.union([z.number(), z.boolean(), z.string()]);
const evidence = z.object({ measured: scalar, limit: scalar, unit: z.string() });
export type Evidence = z.output<typeof evidence>;
const changeNext = z.object({ what: z.string(), from: scalar, to: scalar, why: z.string() });
export type ChangeNext = z.output<typeof changeNext>;

export const diagnoseAnswer = z.object({
  causes: z.array(
    z.object({
      id: z.string(),
      key: z.string().nullable().describe("the key of the record that it rests on"),
      verdict: z.enum(VERDICTS),
      evidence: evidence.optional(),
      reason: z.string(),
    }),
  ),
  change_next: changeNext.nullable().describe("one change, for a supported cause, within ranges and limits"),
  class: z.enum(["cosmetic", "performance", "safety"]),
});
export type DiagnoseAnswer = z.output<typeof diagnoseAnswer>;

/** Cure in days, least and recommended, where the process does not say. Common practice, no source. */
const CURES: Partial<Record<WaxFamily, [number, number]>> = { soy: [4, 14], coconut: [2, 14], paraffin: [1, 2] };
const BETWEEN: [number, number] = [3, 7];
/** Waxes with a ceiling of their own, on their sheet. */
const OWN_CEILING: readonly WaxFamily[] = ["palm", "gel", "coconut"];
const CEILING_C = 93.3;
/** From here on more oil is more roughness than scent. Common practice, no source. */
const BEST_LOAD = 9;
/** A load is raised by two points: one cannot be told apart. */
const POINTS_UP = 2;

type Asked = Pick<DiagnoseRequest, "wax_family" | "ranges" | "record">;

/** Returns the value of a limit for this wax, process and record; null if none is known. */
export function limitOf(limit: CauseLimit, { wax_family, ranges, record }: Asked): number | null {
  if (typeof limit === "number") return limit;
  const of = wax_family ? FAMILIES[wax_family] : null;
  const most = record.max_load_percent ?? (of ? percentOf(of.largest) : null);
  switch (limit) {
    case "pour_low":
      return ranges.pour_c?.[0] ?? null;
    case "pour_high":
      return ranges.pour_c?.[1] ?? null;
    case "add_low":
      return ranges.add_c?.[0] ?? null;
    case "add_high":
      return ranges.add_c?.[1] ?? null;
    case "ceiling":
      return ranges.ceiling_c ?? (wax_family && OWN_CEILING.includes(wax_family) ? null : CEILING_C);
    case "load_low":
      return of ? percentOf(of.usual[0] as number) : null;
    case "load_high":
      return Math.min(of ? percentOf(of.usual[1] as number) : 10, most ?? 100);
    case "load_most":
      return most;
    case "essential_most":
      return Math.min(4, most ?? 4);
    case "dye_most":
      return wax_family === "gel" ? 1 : 10;
    case "stir_least":
      return ranges.stir_minutes ?? (wax_family === "paraffin" ? 0.33 : 2);
    case "cure_least":
      return (ranges.cure_days ?? (wax_family ? (CURES[wax_family] ?? BETWEEN) : null))?.[0] ?? null;
    case "cure_recommended":
      return (ranges.cure_days ?? (wax_family ? (CURES[wax_family] ?? BETWEEN) : null))?.[1] ?? null;
    case "trim_most":
      return 6;
    case "as_tall_as_wide":
      return record.vessel_diameter_mm ?? null;
  }
}

const round = (value: number, digits = 2) => Math.round(value * 10 ** digits) / 10 ** digits;
/** Returns what the record says under a key; a number of pours as whether there was more than one. */
function recordedOf(record: DiagnosisRecord, key: RecordKeyName): number | boolean | undefined {
  const value = record[key];
  return key === "halves" && typeof value === "number" ? value > 1 : value;
}

export interface Judged {
  cause: Cause;
  verdict: Verdict;
  evidence: Evidence | null;
}

/** By so many points of load a scale's rounding moves what was asked; so much is no evidence. Common practice, no source. */
const LOAD_ROUNDING_POINTS = 0.25;

/** The load to be judged: what was asked for, where what was weighed differs from it by rounding only. */
function judgedLoad(weighed: number, record: DiagnosisRecord): number {
  const asked = record.asked_load_percent;
  return asked !== undefined && Math.abs(weighed - asked) <= LOAD_ROUNDING_POINTS ? asked : weighed;
}

/** Returns whether the record supports one cause, by comparing the recorded value with its limit. What was not recorded is not judged. */
export function judge(cause: Cause, asked: Asked): Judged {
  const open: Judged = { cause, verdict: "not_recorded", evidence: null };
  const { test, key } = cause;
  if (!test) return open;
  if ("family" in test) {
    if (!asked.wax_family) return open;
    const fits = test.family.includes(asked.wax_family);
    return { cause, verdict: fits ? "supported" : "contradicted", evidence: { measured: asked.wax_family, limit: test.family.join(", "), unit: "wax family" } };
  }
  const measured = key === null ? undefined : recordedOf(asked.record, key);
  if (measured === undefined || key === null) return open;
  const { unit } = keyOf(key);
  if ("is" in test) return { cause, verdict: measured === test.is ? "supported" : "contradicted", evidence: { measured, limit: !test.is, unit } };
  const limit = limitOf("above" in test ? test.above : test.below, asked);
  if (limit === null || typeof measured !== "number") return open;
  const judged = key === "load_percent_of_wax" ? judgedLoad(measured, asked.record) : measured;
  const past = "above" in test ? judged > limit : judged < limit;
  return { cause, verdict: past ? "supported" : "contradicted", evidence: { measured, limit, unit } };
}

const middle = (pair: readonly [number, number] | undefined) => (pair ? round((pair[0] + pair[1]) / 2, 1) : null);
const least = (...values: (number | null)[]) => Math.min(...values.filter((value): value is number => value !== null));

/** To what one would change it: within ranges and limits; null if nothing is to be changed. */
function goalOf(change: CauseChange, from: number | boolean, asked: Asked): number | boolean | null {
  if (typeof change === "boolean" || typeof change === "number") return change;
  if (typeof change === "object") return typeof from === "number" ? from + change.step : null;
  const most = limitOf("load_most", asked);
  const high = limitOf("load_high", asked);
  const ceiling = limitOf("ceiling", asked);
  const under = (value: number | null) => (value === null ? null : least(value, ceiling));
  switch (change) {
    case "pour_middle":
      return under(middle(asked.ranges.pour_c));
    case "add_middle":
      return under(middle(asked.ranges.add_c));
    case "heat_most":
      return under(asked.ranges.heat_c?.[1] ?? ceiling);
    case "load_down":
      return least(BEST_LOAD, high, most);
    case "load_up":
      return typeof from === "number" && most !== null ? least(from + POINTS_UP, most) : null;
    case "dye_up":
      return typeof from === "number" ? least(from + 2, limitOf("dye_most", asked)) : null;
    default:
      return limitOf(change, asked);
  }
}

/** Returns the one change that a supported cause asks for; null if it asks for none. */
export function changeOf({ cause, verdict, evidence: seen }: Judged, asked: Asked): ChangeNext | null {
  if (verdict !== "supported" || cause.change === undefined || cause.key === null || !seen || typeof seen.measured === "string") return null;
  const to = goalOf(cause.change, seen.measured, asked);
  return to === null || to === seen.measured ? null : { what: cause.key, from: seen.measured, to, why: cause.reason };
}

const ORDER: Record<Verdict, number> = { supported: 0, not_recorded: 1, contradicted: 2 };

export interface Diagnosis {
  causes: Judged[];
  change: ChangeNext | null;
  class: DiagnoseAnswer["class"];
}

/** The gravest of what a flaw can be. */
export const gravest = (defect: string): DiagnoseAnswer["class"] => {
  const classes = defectOf(defect)?.classes ?? [];
  return classes.includes("S") ? "safety" : classes.includes("P") ? "performance" : "cosmetic";
};

/**
 * Returns the known causes of a flaw with what the record says of each, most likely first and supported ones before the rest; and one
 * change for next time. `own` are causes that a workshop added to the known ones.
 */
export function diagnose(asked: Asked & { defect: string }, own: readonly Cause[] = []): Diagnosis {
  const judged = [...CAUSES, ...own].filter((cause) => cause.defect === asked.defect).map((cause) => judge(cause, asked));
  const causes = judged.map((judged, index) => ({ one: judged, at: index })).sort((a, b) => ORDER[a.one.verdict] - ORDER[b.one.verdict] || a.at - b.at);
  const sorted = causes.map(({ one: judged }) => judged);
  let change: ChangeNext | null = null;
  for (const judged of sorted) change ??= changeOf(judged, asked);
  return { causes: sorted, change, class: gravest(asked.defect) };
}

const figure = (value: number | boolean | string, unit: string) =>
  typeof value === "boolean"
    ? value
      ? "yes"
      : "no"
    : typeof value === "string"
      ? value
      : `${round(value)} ${round(value) === 1 ? unit.replace(/s$/, "") : unit}`.trim();
/** An infrared thermometer can be off by so much, in °C. Common practice, no source. */
const INFRARED_OFF = 3;

function reasonOf({ cause, verdict, evidence: seen }: Judged, asked: Asked): string {
  const { key, test, reason } = cause;
  if (!seen || !test) {
    if (!key) return `${reason} No evidence recorded.`;
    const said = recordedOf(asked.record, key) !== undefined;
    return said ? `${reason} No limit is known to hold “${keyOf(key).words}” against.` : `${reason} Not recorded: log “${keyOf(key).words}” next time.`;
  }
  if ("family" in test) return verdict === "supported" ? reason : `${reason} Not of this wax: ${seen.measured}.`;
  // A score belongs to the age at which it was smelled.
  const words = key === "cure_days" && /throw$/.test(cause.defect) ? "smelled after" : keyOf(key as RecordKeyName).words;
  if ("is" in test || typeof seen.measured !== "number" || typeof seen.limit !== "number")
    return `${reason} Recorded: ${words}, ${figure(seen.measured, seen.unit)}.`;
  const by = round(Math.abs(seen.measured - seen.limit));
  const against = `${words} ${figure(seen.measured, seen.unit)}`;
  const side = "above" in test ? "above" : "below";
  const off =
    seen.unit === "°C" && asked.record.instrument === "infrared" && by <= INFRARED_OFF ? " It was read by infrared, which can be off by as much." : "";
  return verdict === "supported"
    ? `${reason} Recorded: ${against}, ${figure(by, seen.unit)} ${side} ${figure(seen.limit, seen.unit)}.${off}`
    : `${reason} Recorded: ${against}, not ${side} ${figure(seen.limit, seen.unit)}.${off}`;
}

/** Returns the answer of the calculation interface. */
export function answerDiagnose(request: DiagnoseRequest): DiagnoseAnswer {
  const { causes, change, class: kind } = diagnose(request);
  return {
    causes: causes.map((cause) => ({
      id: cause.cause.id,
      key: cause.cause.key,
      verdict: cause.verdict,
      ...(cause.evidence ? { evidence: cause.evidence } : {}),
      reason: reasonOf(cause, request),
    })),
    change_next: change,
    class: kind,
  };
}

/** A cause that a workshop adds: of a flaw, in its own words, compared with a figure or a choice. */
export const customCause = z
  .object({
    id: z.uuid(),
    defect: z.enum(DEFECTS.map((defect) => defect.id) as [string, ...string[]], { error: "Choose the flaw." }),
    words: z.string().trim().min(2, "Enter the cause.").max(120, "At most 120 letters."),
    reason: z.string().trim().max(500).default(""),
    key: z.enum(RECORD_KEY_NAMES as [RecordKeyName, ...RecordKeyName[]]).nullable(),
    test: z.union([z.object({ above: z.number() }), z.object({ below: z.number() }), z.object({ is: z.boolean() })]).nullable(),
  })
  .superRefine((item, context) => {
    if ((item.key === null) !== (item.test === null)) context.addIssue({ code: "custom", path: ["test"], message: "Enter the value." });
    else if (item.key && item.test && (keyOf(item.key).kind === "yes-no") !== "is" in item.test)
      context.addIssue({ code: "custom", path: ["test"], message: "Say yes or no for what is no figure, and a figure for what is one." });
  });
export type CustomCause = z.output<typeof customCause>;
