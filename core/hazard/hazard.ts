import { z } from "zod";

/**
 * Classes of a mixture by the rules of Regulation (EC) 1272/2008 (CLP), annex I (from memory). A draft: rules differ by country, and a
 * competent person has to check every label.
 */
interface ClassRule {
  h: string;
  pictogram: string | null;
  signal: "Warning" | "Danger" | null;
}
const rule = (h: string, pictogram: string | null, signal: ClassRule["signal"]): ClassRule => ({ h, pictogram, signal });

/** What a class of the mixture puts on the label. */
const LABELS: Record<string, ClassRule> = {
  "Acute Tox. 1 oral": rule("H300", "GHS06", "Danger"),
  "Acute Tox. 2 oral": rule("H300", "GHS06", "Danger"),
  "Acute Tox. 3 oral": rule("H301", "GHS06", "Danger"),
  "Acute Tox. 4 oral": rule("H302", "GHS07", "Warning"),
  "Skin Corr. 1": rule("H314", "GHS05", "Danger"),
  "Skin Irrit. 2": rule("H315", "GHS07", "Warning"),
  "Eye Dam. 1": rule("H318", "GHS05", "Danger"),
  "Eye Irrit. 2": rule("H319", "GHS07", "Warning"),
  "Skin Sens. 1": rule("H317", "GHS07", "Warning"),
  "Muta. 1": rule("H340", "GHS08", "Danger"),
  "Muta. 2": rule("H341", "GHS08", "Warning"),
  "Carc. 1": rule("H350", "GHS08", "Danger"),
  "Carc. 2": rule("H351", "GHS08", "Warning"),
  "Repr. 1": rule("H360", "GHS08", "Danger"),
  "Repr. 2": rule("H361", "GHS08", "Warning"),
  "STOT SE 3": rule("H335", "GHS07", "Warning"),
  "STOT RE 2": rule("H373", "GHS08", "Warning"),
  "Aquatic Acute 1": rule("H400", "GHS09", "Warning"),
  "Aquatic Chronic 1": rule("H410", "GHS09", "Warning"),
  "Aquatic Chronic 2": rule("H411", "GHS09", null),
  "Aquatic Chronic 3": rule("H412", null, null),
  "Aquatic Chronic 4": rule("H413", null, null),
};
/** Of liquids only: a candle is solid. */
const OF_LIQUIDS = ["Asp. Tox. 1", "Flam. Liq. 3"] as const;
export const HAZARD_CLASSES: readonly string[] = [...Object.keys(LABELS), "Skin Sens. 1A", "Skin Sens. 1B", ...OF_LIQUIDS];

/** Oral: what stands for an ingredient of which only the category is known, and up to where a mixture is of a category; mg/kg. */
const ORAL = [
  { category: 1, point: 0.5, upTo: 5 },
  { category: 2, point: 5, upTo: 50 },
  { category: 3, point: 100, upTo: 300 },
  { category: 4, point: 500, upTo: 2_000 },
] as const;

const percent = z.number().min(0, "At least 0 %.").max(100, "At most 100 %.");
const hazardClass = z
  .string()
  .refine((one) => HAZARD_CLASSES.includes(one), { error: (issue) => `“${issue.input}” is no class known here. One of: ${HAZARD_CLASSES.join(", ")}.` });

const ingredient = z.object({
  name: z.string().trim().min(1, "Name the ingredient.").max(200),
  percent: percent.describe("of the part"),
  classes: z.array(hazardClass).max(30),
  m: z.number().min(1).max(1_000_000).nullish().describe("M-factor for water; 1 where nothing is said"),
  ate_oral_mg_kg: z.number().positive().max(100_000).nullish(),
  specific_limits: z
    .array(z.object({ class: hazardClass, percent: percent.gt(0, "Above 0 %.") }))
    .max(30)
    .nullish(),
});
export const hazardRequest = z.object({
  parts: z
    .array(z.object({ percent: percent.describe("of the candle"), ingredients: z.array(ingredient).max(500) }))
    .min(1, "At least one part.")
    .max(100),
});
export type HazardRequest = z.output<typeof hazardRequest>;

export const hazardAnswer = z.object({
  classes: z.array(z.string()),
  signal: z.enum(["Warning", "Danger"]).nullable(),
  pictograms: z.array(z.string()),
  h: z.array(z.string()),
  euh: z.array(z.string()),
  contains: z.array(z.string()).describe("names that stand on the label"),
  working: z.array(z.object({ rule: z.string(), value: z.number(), limit: z.number(), met: z.boolean(), from: z.array(z.string()) })),
  missing: z.array(z.string()).describe("what was not said, and what was taken instead"),
  draft: z.literal(true),
});
export type HazardAnswer = z.output<typeof hazardAnswer>;

interface Held {
  name: string;
  /** Of the candle, in percent. */
  c: number;
  classes: ReadonlySet<string>;
  m: number;
  ate: number | null;
  limits: ReadonlyMap<string, number>;
}

/** What is in the candle, by name: one ingredient of two oils is one ingredient. */
function heldBy(request: HazardRequest): Held[] {
  const all = new Map<string, Held>();
  for (const part of request.parts)
    for (const one of part.ingredients) {
      const c = (part.percent * one.percent) / 100;
      const there = all.get(one.name);
      const limits = new Map(there?.limits);
      for (const each of one.specific_limits ?? []) limits.set(each.class, Math.min(each.percent, limits.get(each.class) ?? 100));
      all.set(one.name, {
        name: one.name,
        c: c + (there?.c ?? 0),
        classes: new Set([...(there?.classes ?? []), ...one.classes]),
        m: Math.max(one.m ?? 1, there?.m ?? 1),
        ate: [one.ate_oral_mg_kg ?? null, there?.ate ?? null].reduce<number | null>((a, b) => (a === null ? b : b === null ? a : Math.min(a, b)), null),
        limits,
      });
    }
  return [...all.values()];
}

const SENSITISERS = ["Skin Sens. 1A", "Skin Sens. 1B", "Skin Sens. 1"] as const;
/** From which share on a sensitiser classifies a mixture: its own limit, or the generic one. */
function sensitiserLimit(one: Held): number | null {
  const mine = SENSITISERS.filter((each) => one.classes.has(each));
  if (mine.length === 0) return null;
  const own = SENSITISERS.flatMap((each) => one.limits.get(each) ?? []);
  return own.length > 0 ? Math.min(...own) : mine.includes("Skin Sens. 1A") ? 0.1 : 1;
}
/** From a tenth of its limit on a sensitiser is named. */
const NAMED_FROM = 0.1;

/** Single ingredients that classify the mixture by themselves, and from which share on. */
const BY_ITSELF: [string, number][] = [
  ["Muta. 1", 0.1],
  ["Muta. 2", 1],
  ["Carc. 1", 0.1],
  ["Carc. 2", 1],
  ["Repr. 1", 0.3],
  ["Repr. 2", 3],
  ["STOT RE 2", 10],
];
/** What has to be named where it classifies the mixture. */
const NAMED = /^(Acute Tox|Skin Corr|Eye Dam|Muta|Carc|Repr|STOT)/;

const digits = (value: number) => Math.round(value * 1e6) / 1e6;
/** Sums that are met but for the last digit of a binary fraction are met. */
const reaches = (value: number, limit: number) => value >= limit - 1e-9;

/** The label of a mixture, as a draft. */
export function answerHazard(request: HazardRequest): HazardAnswer {
  const held = heldBy(request).filter((one) => one.c > 0);
  const classes = new Set<string>();
  const contains = new Set<string>();
  const working: HazardAnswer["working"] = [];
  const missing = new Set<string>();
  const test = (name: string, value: number, limit: number, from: readonly Held[], gives: string | null): boolean => {
    if (from.length === 0) return false;
    const met = reaches(value, limit);
    working.push({ rule: name, value: digits(value), limit, met, from: from.map((one) => one.name) });
    if (met && gives) {
      classes.add(gives);
      if (NAMED.test(gives)) for (const one of from) contains.add(one.name);
    }
    return met;
  };
  const having = (...names: string[]) => held.filter((one) => names.some((name) => one.classes.has(name)));
  /** Shares added up; one with a limit of its own weighs as much as its limit is below the generic one. */
  const sum = (list: readonly Held[], limit: number, ...names: string[]) =>
    list.reduce((all, one) => {
      const own = names.flatMap((name) => (one.classes.has(name) ? (one.limits.get(name) ?? []) : []));
      return all + one.c * (own.length > 0 ? limit / Math.min(...own) : 1);
    }, 0);

  // Acute toxicity, swallowed: one over the sum of shares over their estimates.
  const toxic = held.flatMap((one) => {
    const category = ORAL.find((each) => one.classes.has(`Acute Tox. ${each.category} oral`));
    const ate = one.ate ?? category?.point ?? null;
    if (category && one.ate === null) missing.add(`ATE (oral) of ${one.name}: ${category.point} mg/kg was taken, which stands for its category`);
    return ate !== null && (category || ate <= 2_000) ? [{ one, ate }] : [];
  });
  if (toxic.length > 0) {
    const ate = 100 / toxic.reduce((all, { one, ate: each }) => all + one.c / each, 0);
    const category = ORAL.find((each) => ate <= each.upTo);
    working.push({
      rule: "acute toxicity, oral: 100 / Σ (C / ATE), mg/kg",
      value: digits(ate),
      limit: 2_000,
      met: category !== undefined,
      from: toxic.map(({ one }) => one.name),
    });
    if (category) {
      classes.add(`Acute Tox. ${category.category} oral`);
      for (const { one } of toxic) contains.add(one.name);
    }
  }

  // Skin.
  const corrosive = having("Skin Corr. 1");
  const irritant = held.filter((one) => one.classes.has("Skin Irrit. 2") && !one.classes.has("Skin Corr. 1"));
  const burns = sum(corrosive, 5, "Skin Corr. 1");
  const irritates = sum(irritant, 10, "Skin Irrit. 2");
  if (!test("skin: Σ Corr. 1", burns, 5, corrosive, "Skin Corr. 1")) {
    test("skin: Σ Corr. 1, for irritation", burns, 1, corrosive, "Skin Irrit. 2");
    test("skin: Σ Irrit. 2", irritates, 10, irritant, "Skin Irrit. 2");
    if (corrosive.length > 0) test("skin: 10 × Corr. 1 + Irrit. 2", 10 * burns + irritates, 10, [...corrosive, ...irritant], "Skin Irrit. 2");
  }

  // Eye: what burns the skin damages the eye; one of both classes counts once.
  const damaging = having("Skin Corr. 1", "Eye Dam. 1");
  const stinging = held.filter((one) => one.classes.has("Eye Irrit. 2") && !damaging.includes(one));
  const damages = sum(damaging, 3, "Eye Dam. 1");
  const stings = sum(stinging, 10, "Eye Irrit. 2");
  if (!test("eye: Σ (Skin Corr. 1 + Eye Dam. 1)", damages, 3, damaging, "Eye Dam. 1")) {
    test("eye: Σ (Skin Corr. 1 + Eye Dam. 1), for irritation", damages, 1, damaging, "Eye Irrit. 2");
    test("eye: Σ Irrit. 2", stings, 10, stinging, "Eye Irrit. 2");
    if (damaging.length > 0) test("eye: 10 × (Skin Corr. 1 + Eye Dam. 1) + Irrit. 2", 10 * damages + stings, 10, [...damaging, ...stinging], "Eye Irrit. 2");
  }

  // Sensitisers, each by itself.
  const sensitisers = held.flatMap((one) => {
    const limit = sensitiserLimit(one);
    return limit === null ? [] : [{ one, limit }];
  });
  for (const { one, limit } of sensitisers) test(`skin sensitiser ${one.name}`, one.c, limit, [one], "Skin Sens. 1");
  const named = sensitisers.filter(({ one, limit }) => reaches(one.c, limit * NAMED_FROM)).map(({ one }) => one.name);
  for (const name of named) contains.add(name);
  const euh = named.length > 0 && !classes.has("Skin Sens. 1") ? ["EUH208"] : [];

  for (const [name, limit] of BY_ITSELF) for (const one of having(name)) test(`${name}, ${one.name}`, one.c, one.limits.get(name) ?? limit, [one], name);
  const breathed = having("STOT SE 3");
  test("Σ STOT SE 3", sum(breathed, 20, "STOT SE 3"), 20, breathed, "STOT SE 3");
  for (const name of OF_LIQUIDS)
    for (const one of having(name))
      working.push({ rule: `${name} does not apply to a solid candle`, value: digits(one.c), limit: 100, met: false, from: [one.name] });

  // Water, with M-factors.
  const acute = having("Aquatic Acute 1");
  const chronic = [1, 2, 3, 4].map((n) => having(`Aquatic Chronic ${n}`));
  const [first, second, third] = chronic as [Held[], Held[], Held[], Held[]];
  for (const one of new Set([...acute, ...first]))
    if (!request.parts.some((part) => part.ingredients.some((each) => each.name === one.name && each.m != null)))
      missing.add(`M-factor of ${one.name}: 1 was taken`);
  const plain = (list: readonly Held[]) => list.reduce((all, one) => all + one.c, 0);
  const times = (list: readonly Held[]) => list.reduce((all, one) => all + one.c * one.m, 0);
  test("water: Σ M · C, acute 1", times(acute), 25, acute, "Aquatic Acute 1");
  const upTo = (n: number) => chronic.slice(0, n).flat();
  void (
    test("water: Σ M · C₁", times(first), 25, first, "Aquatic Chronic 1") ||
    test("water: Σ (10 · M · C₁ + C₂)", 10 * times(first) + plain(second), 25, upTo(2), "Aquatic Chronic 2") ||
    test("water: Σ (100 · M · C₁ + 10 · C₂ + C₃)", 100 * times(first) + 10 * plain(second) + plain(third), 25, upTo(3), "Aquatic Chronic 3") ||
    test("water: Σ (C₁ + C₂ + C₃ + C₄)", plain([...new Set(upTo(4))]), 25, upTo(4), "Aquatic Chronic 4")
  );

  return { ...labelOf([...classes]), euh, contains: [...contains].sort(), working, missing: [...missing], draft: true };
}

/** Pictograms, signal word and H sentences of classes, with what leaves what out. */
function labelOf(classes: string[]): Pick<HazardAnswer, "classes" | "signal" | "pictograms" | "h"> {
  const order = Object.keys(LABELS);
  const sorted = classes.sort((a, b) => order.indexOf(a) - order.indexOf(b));
  const rules = sorted.map((name) => ({ name, ...(LABELS[name] as ClassRule) }));
  const has = (pictogram: string) => rules.some((one) => one.pictogram === pictogram);
  const shown = rules.filter(({ name, pictogram }) => {
    if (pictogram !== "GHS07") return pictogram !== null;
    // Beside the corrosion sign the irritation of skin and eye goes without its own; beside the skull the lesser harm.
    if (has("GHS05") && (name === "Skin Irrit. 2" || name === "Eye Irrit. 2")) return false;
    return !(has("GHS06") && name.startsWith("Acute Tox"));
  });
  const h = rules.map((one) => one.h);
  return {
    classes: sorted,
    signal: rules.some((one) => one.signal === "Danger") ? "Danger" : rules.some((one) => one.signal === "Warning") ? "Warning" : null,
    pictograms: [...new Set(shown.map((one) => one.pictogram as string))].sort(),
    // Harm that lasts says the acute harm to water too; burns say the damage to the eye.
    h: [...new Set(h.filter((one) => !(one === "H400" && h.includes("H410")) && !(one === "H318" && h.includes("H314"))))].sort(),
  };
}
