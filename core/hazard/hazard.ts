import { z } from "zod";
import { CLP, type ClassRule, HAZARD_CLASSES, type HazardRules } from "./rules";

export { HAZARD_CLASSES };

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
  classes: Set<string>;
  m: number;
  /** Whether an M-factor was given for it. */
  mGiven: boolean;
  ate: number | null;
  limits: Map<string, number>;
}

/** What is in the candle, by name: one ingredient of two oils is one ingredient. */
function heldBy(request: HazardRequest): Held[] {
  const all = new Map<string, Held>();
  for (const part of request.parts)
    for (const one of part.ingredients) {
      const c = (part.percent * one.percent) / 100;
      const there = all.get(one.name);
      if (!there) {
        const limits = new Map<string, number>();
        for (const each of one.specific_limits ?? []) limits.set(each.class, Math.min(each.percent, limits.get(each.class) ?? 100));
        all.set(one.name, {
          name: one.name,
          c,
          classes: new Set(one.classes),
          m: one.m ?? 1,
          mGiven: one.m != null,
          ate: one.ate_oral_mg_kg ?? null,
          limits,
        });
        continue;
      }
      there.c += c;
      for (const each of one.classes) there.classes.add(each);
      there.m = Math.max(one.m ?? 1, there.m);
      there.mGiven ||= one.m != null;
      if (one.ate_oral_mg_kg != null) there.ate = Math.min(one.ate_oral_mg_kg, there.ate ?? one.ate_oral_mg_kg);
      for (const each of one.specific_limits ?? []) there.limits.set(each.class, Math.min(each.percent, there.limits.get(each.class) ?? 100));
    }
  return [...all.values()];
}

const SENSITISERS = ["Skin Sens. 1A", "Skin Sens. 1B", "Skin Sens. 1"] as const;
/** From which share on a sensitiser classifies a mixture: its own limit, or the generic one. */
function sensitiserLimit(one: Held, rules: HazardRules): number | null {
  const mine = SENSITISERS.filter((each) => one.classes.has(each));
  if (mine.length === 0) return null;
  const own = SENSITISERS.flatMap((each) => one.limits.get(each) ?? []);
  return own.length > 0 ? Math.min(...own) : mine.includes("Skin Sens. 1A") ? rules.sensitiser.strong : rules.sensitiser.other;
}
/** What has to be named where it classifies the mixture. */
const NAMED = /^(Acute Tox|Skin Corr|Eye Dam|Muta|Carc|Repr|STOT)/;

const digits = (value: number) => Math.round(value * 1e6) / 1e6;
/** Sums that are met but for the last digit of a binary fraction are met. */
const reaches = (value: number, limit: number) => value >= limit - 1e-9;

/**
 * Classes of a mixture, and what they put on its label, by additivity. A draft: rules differ by country, and a competent person
 * has to check every label. @param rules CLP, annex I, where nothing else is said
 */
export function answerHazard(request: HazardRequest, rules: HazardRules = CLP): HazardAnswer {
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
  const byClass = new Map<string, Held[]>();
  for (const one of held)
    for (const name of one.classes) {
      const list = byClass.get(name);
      if (list) list.push(one);
      else byClass.set(name, [one]);
    }
  const having = (...names: string[]) =>
    names.length === 1 ? (byClass.get(names[0] ?? "") ?? []) : [...new Set(names.flatMap((name) => byClass.get(name) ?? []))];
  /** Shares added up; one with a limit of its own weighs as much as its limit is below the generic one. */
  const sum = (list: readonly Held[], limit: number, ...names: string[]) => {
    let all = 0;
    for (const one of list) {
      let own = Number.POSITIVE_INFINITY;
      if (one.limits.size > 0) for (const name of names) if (one.classes.has(name)) own = Math.min(own, one.limits.get(name) ?? own);
      all += own === Number.POSITIVE_INFINITY ? one.c : (one.c * limit) / own;
    }
    return all;
  };

  // Acute toxicity, swallowed: one over the sum of shares over their estimates.
  const mostToxic = rules.oral.at(-1)?.upTo ?? 0;
  // The graver category first, where an ingredient carries two.
  const categories = new Map<Held, HazardRules["oral"][number]>();
  for (const each of [...rules.oral].reverse()) for (const one of having(`Acute Tox. ${each.category} oral`)) categories.set(one, each);
  const toxic = held.flatMap((one) => {
    const category = categories.get(one);
    const ate = one.ate ?? category?.point ?? null;
    if (category && one.ate === null) missing.add(`ATE (oral) of ${one.name}: ${category.point} mg/kg was taken, which stands for its category`);
    return ate !== null && (category || ate <= mostToxic) ? [{ one, ate }] : [];
  });
  if (toxic.length > 0) {
    const ate = 100 / toxic.reduce((all, { one, ate: each }) => all + one.c / each, 0);
    const category = rules.oral.find((each) => ate <= each.upTo);
    working.push({
      rule: "acute toxicity, oral: 100 / Σ (C / ATE), mg/kg",
      value: digits(ate),
      limit: mostToxic,
      met: category !== undefined,
      from: toxic.map(({ one }) => one.name),
    });
    if (category) {
      classes.add(`Acute Tox. ${category.category} oral`);
      for (const { one } of toxic) contains.add(one.name);
    }
  }

  // Skin.
  const { corrodes, corrodesToIrritate, irritates } = rules.skin;
  const corrosive = having("Skin Corr. 1");
  const irritant = having("Skin Irrit. 2").filter((one) => !one.classes.has("Skin Corr. 1"));
  const burns = sum(corrosive, corrodes, "Skin Corr. 1");
  const reddens = sum(irritant, irritates, "Skin Irrit. 2");
  if (!test("skin: Σ Corr. 1", burns, corrodes, corrosive, "Skin Corr. 1")) {
    test("skin: Σ Corr. 1, for irritation", burns, corrodesToIrritate, corrosive, "Skin Irrit. 2");
    test("skin: Σ Irrit. 2", reddens, irritates, irritant, "Skin Irrit. 2");
    if (corrosive.length > 0) test("skin: 10 × Corr. 1 + Irrit. 2", 10 * burns + reddens, irritates, [...corrosive, ...irritant], "Skin Irrit. 2");
  }

  // Eye: what burns the skin damages the eye; one of both classes counts once.
  const eye = rules.eye;
  const damaging = having("Skin Corr. 1", "Eye Dam. 1");
  const stinging = having("Eye Irrit. 2").filter((one) => !one.classes.has("Skin Corr. 1") && !one.classes.has("Eye Dam. 1"));
  const damages = sum(damaging, eye.damages, "Eye Dam. 1");
  const stings = sum(stinging, eye.irritates, "Eye Irrit. 2");
  if (!test("eye: Σ (Skin Corr. 1 + Eye Dam. 1)", damages, eye.damages, damaging, "Eye Dam. 1")) {
    test("eye: Σ (Skin Corr. 1 + Eye Dam. 1), for irritation", damages, eye.damagesToIrritate, damaging, "Eye Irrit. 2");
    test("eye: Σ Irrit. 2", stings, eye.irritates, stinging, "Eye Irrit. 2");
    if (damaging.length > 0)
      test("eye: 10 × (Skin Corr. 1 + Eye Dam. 1) + Irrit. 2", 10 * damages + stings, eye.irritates, [...damaging, ...stinging], "Eye Irrit. 2");
  }

  // Sensitisers, each by itself.
  const sensitisers = having(...SENSITISERS).flatMap((one) => {
    const limit = sensitiserLimit(one, rules);
    return limit === null ? [] : [{ one, limit }];
  });
  for (const { one, limit } of sensitisers) test(`skin sensitiser ${one.name}`, one.c, limit, [one], "Skin Sens. 1");
  const named = sensitisers.filter(({ one, limit }) => reaches(one.c, limit * rules.sensitiser.namedFrom)).map(({ one }) => one.name);
  for (const name of named) contains.add(name);
  const euh = named.length > 0 && !classes.has("Skin Sens. 1") ? ["EUH208"] : [];

  for (const [name, limit] of Object.entries(rules.byItself))
    for (const one of having(name)) test(`${name}, ${one.name}`, one.c, one.limits.get(name) ?? limit, [one], name);
  const breathed = having("STOT SE 3");
  test("Σ STOT SE 3", sum(breathed, rules.breathed, "STOT SE 3"), rules.breathed, breathed, "STOT SE 3");
  for (const name of rules.ofLiquids)
    for (const one of having(name))
      working.push({ rule: `${name} does not apply to a solid candle`, value: digits(one.c), limit: 100, met: false, from: [one.name] });

  // Water, with M-factors.
  const acute = having("Aquatic Acute 1");
  const chronic = [1, 2, 3, 4].map((n) => having(`Aquatic Chronic ${n}`));
  const [first, second, third] = chronic as [Held[], Held[], Held[], Held[]];
  for (const one of new Set([...acute, ...first])) if (!one.mGiven) missing.add(`M-factor of ${one.name}: 1 was taken`);
  const plain = (list: readonly Held[]) => list.reduce((all, one) => all + one.c, 0);
  const times = (list: readonly Held[]) => list.reduce((all, one) => all + one.c * one.m, 0);
  test("water: Σ M · C, acute 1", times(acute), rules.water, acute, "Aquatic Acute 1");
  const upTo = (n: number) => chronic.slice(0, n).flat();
  void (
    test("water: Σ M · C₁", times(first), rules.water, first, "Aquatic Chronic 1") ||
    test("water: Σ (10 · M · C₁ + C₂)", 10 * times(first) + plain(second), rules.water, upTo(2), "Aquatic Chronic 2") ||
    test("water: Σ (100 · M · C₁ + 10 · C₂ + C₃)", 100 * times(first) + 10 * plain(second) + plain(third), rules.water, upTo(3), "Aquatic Chronic 3") ||
    test("water: Σ (C₁ + C₂ + C₃ + C₄)", plain([...new Set(upTo(4))]), rules.water, upTo(4), "Aquatic Chronic 4")
  );

  return { ...labelOf([...classes], rules), euh, contains: [...contains].sort(), working, missing: [...missing], draft: true };
}

/** Pictograms, signal word and H sentences of classes, with what leaves what out. */
function labelOf(classes: string[], { classes: table }: HazardRules): Pick<HazardAnswer, "classes" | "signal" | "pictograms" | "h"> {
  const order = Object.keys(table);
  const sorted = classes.sort((a, b) => order.indexOf(a) - order.indexOf(b));
  const found = sorted.map((name) => ({ name, ...(table[name] as ClassRule) }));
  const has = (pictogram: string) => found.some((one) => one.pictogram === pictogram);
  const shown = found.filter(({ name, pictogram }) => {
    if (pictogram !== "GHS07") return pictogram !== null;
    // Beside the corrosion sign the irritation of skin and eye goes without its own; beside the skull the lesser harm.
    if (has("GHS05") && (name === "Skin Irrit. 2" || name === "Eye Irrit. 2")) return false;
    return !(has("GHS06") && name.startsWith("Acute Tox"));
  });
  const h = found.map((one) => one.h);
  return {
    classes: sorted,
    signal: found.some((one) => one.signal === "Danger") ? "Danger" : found.some((one) => one.signal === "Warning") ? "Warning" : null,
    pictograms: [...new Set(shown.map((one) => one.pictogram as string))].sort(),
    // Harm that lasts says the acute harm to water too; burns say the damage to the eye.
    h: [...new Set(h.filter((one) => !(one === "H400" && h.includes("H410")) && !(one === "H318" && h.includes("H314"))))].sort(),
  };
}
