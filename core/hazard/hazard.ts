import { z } from "zod";
import { type Held, heldBy, nearlyAlike } from "./ingredients";
import { casNumber, ecNumber } from "./numbers";
import { CLP, type ClassRule, classNamed, HAZARD_CLASSES, type HazardRules } from "./rules";

export { HAZARD_CLASSES };

const percent = z.number().min(0, "At least 0 %.").max(100, "At most 100 %.");
const hazardClass = z.string().transform((one, context) => {
  const known = classNamed(one);
  if (known) return known;
  context.addIssue({ code: "custom", message: `“${one}” is no class known here. One of: ${HAZARD_CLASSES.join(", ")}.` });
  return z.NEVER;
});
const mFactor = z.number().min(1).max(1_000_000).nullish();
const estimate = z.number().positive().max(100_000).nullish();

const ingredient = z.object({
  name: z.string().trim().min(1, "Name the ingredient.").max(200),
  cas: casNumber.nullish().describe("ingredients of one number are one substance, as are those of one name whatever its case"),
  ec: ecNumber.nullish(),
  percent: percent.describe("of the part"),
  classes: z.array(hazardClass).max(40),
  m: mFactor.describe("M-factor for water, acute and chronic; 1 where nothing is said"),
  m_acute: mFactor.describe("where it is another than the chronic one"),
  m_chronic: mFactor,
  ate_oral_mg_kg: estimate,
  ate_dermal_mg_kg: estimate,
  ate_inhalation_mg_l: estimate,
  inhaled_as: z.enum(["vapor", "dust"]).nullish().describe("what the estimate for inhalation is of; dust or mist where nothing is said"),
  specific_limits: z
    .array(z.object({ class: hazardClass, percent: percent.gt(0, "Above 0 %.") }))
    .max(40)
    .nullish(),
});
/** Figures that were rounded to the last digit may come to a little more. */
const WHOLE_PERCENT = 100.01;
const sumOf = (list: readonly { percent: number }[]) => list.reduce((sum, one) => sum + one.percent, 0);
export const hazardRequest = z
  .object({
    parts: z
      .array(z.object({ percent: percent.describe("of the candle"), ingredients: z.array(ingredient).max(500) }))
      .min(1, "At least one part.")
      .max(100),
    cut_offs: z
      .boolean()
      .default(false)
      .describe("whether ingredients below the cut-off values of annex I, table 1.1 are left out; without them more is classified"),
  })
  .superRefine((one, context) => {
    if (sumOf(one.parts) > WHOLE_PERCENT)
      context.addIssue({ code: "custom", path: ["parts"], message: `The parts come to ${digits(sumOf(one.parts))} % of the candle: at most 100 %.` });
    one.parts.forEach((part, at) => {
      if (sumOf(part.ingredients) > WHOLE_PERCENT)
        context.addIssue({
          code: "custom",
          path: ["parts", at, "ingredients"],
          message: `The ingredients come to ${digits(sumOf(part.ingredients))} % of the part: at most 100 %.`,
        });
    });
  });
export type HazardRequest = z.input<typeof hazardRequest>;

const label = z.object({
  classes: z.array(z.string()),
  signal: z.enum(["Warning", "Danger"]).nullable(),
  pictograms: z.array(z.string()),
  h: z.array(z.string()),
  euh: z.array(z.string()),
});
export const hazardAnswer = label.extend({
  contains: z.array(z.string()).describe("names that stand on the label"),
  working: z.array(z.object({ rule: z.string(), value: z.number(), limit: z.number(), met: z.boolean(), from: z.array(z.string()) })),
  missing: z.array(z.string()).describe("what was not said, and what was taken instead"),
  alike: z.array(z.tuple([z.string(), z.string()])).describe("names that are spelled nearly alike: are they one substance?"),
  cut_offs: z.boolean().describe("whether cut-off values were used"),
  otherwise: label.nullable().describe("what the label would say with the other choice of cut-off values; null where it would say the same"),
  draft: z.literal(true),
});
export type HazardAnswer = z.output<typeof hazardAnswer>;

const SENSITIZERS = {
  "Skin Sens. 1": { classes: ["Skin Sens. 1A", "Skin Sens. 1B", "Skin Sens. 1"], strong: "Skin Sens. 1A", says: "skin" },
  "Resp. Sens. 1": { classes: ["Resp. Sens. 1A", "Resp. Sens. 1B", "Resp. Sens. 1"], strong: "Resp. Sens. 1A", says: "respiratory" },
} as const;
/** From which share on a sensitizer classifies a mixture, its own limit or the generic one; and from which it is named. Null for none. */
function sensitizerLimits(one: Held, { classes, strong }: (typeof SENSITIZERS)[keyof typeof SENSITIZERS], rules: HazardRules) {
  const mine = classes.filter((each) => one.classes.has(each));
  if (mine.length === 0) return null;
  const own = classes.flatMap((each) => one.limits.get(each) ?? []);
  const generic = mine.some((each) => each === strong) ? rules.sensitiser.strong : rules.sensitiser.other;
  const limit = own.length > 0 ? Math.min(...own) : generic;
  // A limit of its own above the generic one does not raise the share from which it is named (annex I, table 3.4.6, note 1).
  return { limit, named: Math.min(limit, generic) * rules.sensitiser.namedFrom };
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
  const cutOffs = request.cut_offs ?? false;
  const [chosen, other] = [classify(held, rules, cutOffs), classify(held, rules, !cutOffs)];
  const labelled = ({ classes, euh }: Classified) => ({ ...labelOf([...classes], rules), euh });
  const [here, there] = [labelled(chosen), labelled(other)];
  return {
    ...here,
    contains: chosen.contains,
    working: chosen.working,
    missing: chosen.missing,
    alike: nearlyAlike(held),
    cut_offs: cutOffs,
    otherwise: JSON.stringify(here) === JSON.stringify(there) ? null : there,
    draft: true,
  };
}

/** The classes of a mixture in the order of its label, and its EUH sentences, without what else the answer says. */
export function hazardClassesOf(request: HazardRequest, rules: HazardRules = CLP): string[] {
  const held = heldBy(request).filter((one) => one.c > 0);
  const { classes, euh } = classify(held, rules, request.cut_offs ?? false);
  return [...labelOf([...classes], rules).classes, ...euh];
}

interface Classified extends Pick<HazardAnswer, "euh" | "contains" | "working" | "missing"> {
  classes: Set<string>;
}

function classify(held: readonly Held[], rules: HazardRules, cutOffs: boolean): Classified {
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
  /** Whether so little of it is not regarded for a class, where cut-off values are used. */
  const tooLittle = (one: Held, name: string): boolean => {
    const cut = cutOffs ? rules.cutOffs[name.replace(/^(Acute Tox\. \d) \w+$/, "$1").replace(/ H\d+$/, "")] : undefined;
    if (cut === undefined) return false;
    const m = name === "Aquatic Acute 1" ? one.mAcute : name === "Aquatic Chronic 1" ? one.mChronic : null;
    return one.c < Math.min(cut / (m ?? 1), one.limits.get(name) ?? cut) - 1e-12;
  };
  const having = (...names: string[]) => held.filter((one) => names.some((name) => one.classes.has(name) && !tooLittle(one, name)));
  const sum = (list: readonly Held[], of: (one: Held) => number) => list.reduce((all, one) => all + of(one), 0);
  /** A share weighs as much as a limit of its own is below the generic one. */
  const weighed = (one: Held, generic: number, own: number | undefined) => (own === undefined ? one.c : (one.c * generic) / own);

  for (const { route, form, says, categories } of rules.acute) acutely(route, form, says, categories);
  /** Acute toxicity by a route: one over the sum of shares over their estimates. */
  function acutely(
    route: "oral" | "dermal" | "inhalation",
    form: "vapor" | "dust" | undefined,
    says: string,
    categories: HazardRules["acute"][number]["categories"],
  ) {
    const mostToxic = categories.at(-1)?.upTo ?? 0;
    const toxic = held.flatMap((one) => {
      if (form && one.inhaledAs !== form) return [];
      // The graver category first, where an ingredient carries two.
      const category = categories.find((each) => one.classes.has(`Acute Tox. ${each.category} ${route}`));
      const given = one.ate[route];
      const ate = given ?? category?.point ?? null;
      if (ate === null || !(category || ate <= mostToxic)) return [];
      const own = categories.find((each) => ate <= each.upTo);
      if (tooLittle(one, `Acute Tox. ${(category ?? own)?.category ?? 4} ${route}`)) return [];
      if (category && given === null)
        missing.add(`ATE (${route}) of ${one.name}: ${category.point} ${says.split(", ")[1]} was taken, which stands for its category`);
      return [{ one, ate }];
    });
    if (toxic.length === 0) return;
    const ate = 100 / toxic.reduce((all, { one, ate: each }) => all + one.c / each, 0);
    const category = categories.find((each) => ate <= each.upTo);
    working.push({
      rule: `acute toxicity, ${says.replace(", ", ": 100 / Σ (C / ATE), ")}`,
      value: digits(ate),
      limit: mostToxic,
      met: category !== undefined,
      from: toxic.map(({ one }) => one.name),
    });
    if (!category) return;
    classes.add(`Acute Tox. ${category.category} ${route}`);
    for (const { one } of toxic) contains.add(one.name);
  }
  // Of dust and of vapor the graver counts.
  const inhaled = [1, 2, 3, 4].map((n) => `Acute Tox. ${n} inhalation`).filter((name) => classes.has(name));
  for (const milder of inhaled.slice(1)) classes.delete(milder);

  // Skin. What corrodes counts ten times for irritation, or by the sheet's own limit for it.
  const { corrodes, irritates } = rules.skin;
  const corrosive = having("Skin Corr. 1");
  const irritant = having("Skin Irrit. 2").filter((one) => !corrosive.includes(one));
  const burning = (one: Held) => weighed(one, corrodes, one.limits.get("Skin Corr. 1"));
  const reddening = (one: Held) =>
    one.classes.has("Skin Corr. 1") && !one.limits.has("Skin Irrit. 2") ? 10 * burning(one) : weighed(one, irritates, one.limits.get("Skin Irrit. 2"));
  if (!test("skin: Σ Corr. 1", sum(corrosive, burning), corrodes, corrosive, "Skin Corr. 1")) {
    test("skin: Σ Irrit. 2", sum(irritant, reddening), irritates, irritant, "Skin Irrit. 2");
    if (corrosive.length > 0)
      test("skin: 10 × Corr. 1 + Irrit. 2", sum([...corrosive, ...irritant], reddening), irritates, [...corrosive, ...irritant], "Skin Irrit. 2");
  }

  // Eye: what burns the skin damages the eye; one of both classes counts once.
  const eye = rules.eye;
  const damaging = having("Skin Corr. 1", "Eye Dam. 1");
  const stinging = having("Eye Irrit. 2").filter((one) => !damaging.includes(one));
  const damageLimit = (one: Held): number => {
    const [own, corr] = [one.limits.get("Eye Dam. 1"), one.limits.get("Skin Corr. 1")];
    if (own !== undefined || corr === undefined) return own ?? eye.damages;
    // A sheet that says from where the eye is irritated says up to where it is no worse.
    return one.limits.has("Eye Irrit. 2") ? corr : Math.min(corr, eye.damages);
  };
  const damagesEye = (one: Held) => weighed(one, eye.damages, damageLimit(one));
  const stings = (one: Held) => {
    const own = one.limits.get("Eye Irrit. 2");
    return damaging.includes(one) && own === undefined ? 10 * damagesEye(one) : weighed(one, eye.irritates, own);
  };
  if (classes.has("Skin Corr. 1")) {
    working.push({ rule: "eye: a mixture that corrodes the skin damages the eye", value: 1, limit: 1, met: true, from: corrosive.map((one) => one.name) });
    classes.add("Eye Dam. 1");
  } else if (!test("eye: Σ (Skin Corr. 1 + Eye Dam. 1)", sum(damaging, damagesEye), eye.damages, damaging, "Eye Dam. 1")) {
    test("eye: Σ Irrit. 2", sum(stinging, stings), eye.irritates, stinging, "Eye Irrit. 2");
    if (damaging.length > 0)
      test(
        "eye: 10 × (Skin Corr. 1 + Eye Dam. 1) + Irrit. 2",
        sum([...damaging, ...stinging], stings),
        eye.irritates,
        [...damaging, ...stinging],
        "Eye Irrit. 2",
      );
  }

  // Sensitizers, each by itself; named where they are not said by their class.
  const sensitizing = new Set<string>();
  for (const [gives, harm] of Object.entries(SENSITIZERS))
    for (const one of held) {
      const limits = sensitizerLimits(one, harm, rules);
      if (!limits) continue;
      test(`${harm.says} sensitizer ${one.name}`, one.c, limits.limit, [one], gives);
      if (!reaches(one.c, Math.min(limits.named, limits.limit))) continue;
      contains.add(one.name);
      if (!reaches(one.c, limits.limit)) sensitizing.add(gives);
    }
  const euh = [...sensitizing].some((gives) => !classes.has(gives)) ? ["EUH208"] : [];

  for (const [name, limit] of Object.entries(rules.byItself))
    for (const one of having(name)) test(`${name}, ${one.name}`, one.c, one.limits.get(name) ?? limit, [one], name);
  // Harm to organs: of category 1, less of it is of category 2.
  for (const harm of ["STOT SE", "STOT RE"])
    for (const one of held) {
      const [first, second] = [`${harm} 1`, `${harm} 2`];
      const { grave, lesser } = rules.organs;
      if (one.classes.has(first)) {
        if (test(`${first}, ${one.name}`, one.c, one.limits.get(first) ?? grave, [one], first)) continue;
        test(`${second}, ${one.name}`, one.c, one.limits.get(second) ?? Math.min(lesser, one.limits.get(first) ?? lesser), [one], second);
      } else if (one.classes.has(second)) test(`${second}, ${one.name}`, one.c, one.limits.get(second) ?? grave, [one], second);
    }
  for (const harm of ["STOT SE", "STOT RE"]) if (classes.has(`${harm} 1`)) classes.delete(`${harm} 2`);
  for (const name of ["STOT SE 3", "STOT SE 3 H336"]) {
    const breathed = having(name);
    const own = (one: Held) => weighed(one, rules.breathed, one.limits.get(name));
    test(`Σ ${name}`, sum(breathed, own), rules.breathed, breathed, name);
  }
  for (const name of rules.ofLiquids)
    for (const one of having(name))
      working.push({ rule: `${name} does not apply to a solid candle`, value: digits(one.c), limit: 100, met: false, from: [one.name] });

  // Water, with M-factors.
  const acute = having("Aquatic Acute 1");
  const chronic = [1, 2, 3, 4].map((n) => having(`Aquatic Chronic ${n}`));
  const [first, second, third] = chronic as [Held[], Held[], Held[], Held[]];
  for (const one of acute) if (one.mAcute === null) missing.add(`M-factor of ${one.name}: 1 was taken`);
  for (const one of first) if (one.mChronic === null) missing.add(`M-factor of ${one.name}: 1 was taken`);
  const plain = (list: readonly Held[]) => sum(list, (one) => one.c);
  const times = (list: readonly Held[]) => sum(list, (one) => one.c * (one.mChronic ?? 1));
  test(
    "water: Σ M · C, acute 1",
    sum(acute, (one) => one.c * (one.mAcute ?? 1)),
    rules.water,
    acute,
    "Aquatic Acute 1",
  );
  const upTo = (n: number) => chronic.slice(0, n).flat();
  void (
    test("water: Σ M · C₁", times(first), rules.water, first, "Aquatic Chronic 1") ||
    test("water: Σ (10 · M · C₁ + C₂)", 10 * times(first) + plain(second), rules.water, upTo(2), "Aquatic Chronic 2") ||
    test("water: Σ (100 · M · C₁ + 10 · C₂ + C₃)", 100 * times(first) + 10 * plain(second) + plain(third), rules.water, upTo(3), "Aquatic Chronic 3") ||
    test("water: Σ (C₁ + C₂ + C₃ + C₄)", plain([...new Set(upTo(4))]), rules.water, upTo(4), "Aquatic Chronic 4")
  );

  return { classes, euh, contains: [...contains].sort(), working, missing: [...missing] };
}

/** Pictograms, signal word and H sentences of classes, with what leaves what out. */
function labelOf(classes: string[], { classes: table }: HazardRules): Pick<HazardAnswer, "classes" | "signal" | "pictograms" | "h"> {
  const order = Object.keys(table);
  const sorted = classes.sort((a, b) => order.indexOf(a) - order.indexOf(b));
  const found = sorted.map((name) => ({ name, ...(table[name] as ClassRule) }));
  const has = (pictogram: string) => found.some((one) => one.pictogram === pictogram);
  const shown = found.filter(({ name, pictogram }) => {
    if (pictogram !== "GHS07") return pictogram !== null;
    // Article 26: beside the skull none; beside the corrosion sign not for skin and eye; nor beside the sign of what one cannot breathe, with the skin's allergy.
    if (has("GHS06")) return false;
    const ofSkinOrEye = name === "Skin Irrit. 2" || name === "Eye Irrit. 2";
    if (has("GHS05") && ofSkinOrEye) return false;
    return !(sorted.includes("Resp. Sens. 1") && (ofSkinOrEye || name === "Skin Sens. 1"));
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
