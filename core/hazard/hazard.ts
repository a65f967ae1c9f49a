import { type Held, heldBy, nearlyAlike } from "./ingredients";
import { CLP, type ClassRule, digits, type HazardRules } from "./rules";
import type { HazardAnswer, HazardRequest } from "./schema";

const SENSITIZERS = {
  "Skin Sens. 1": { classes: ["Skin Sens. 1A", "Skin Sens. 1B", "Skin Sens. 1"], strong: "Skin Sens. 1A", says: "skin" },
  "Resp. Sens. 1": { classes: ["Resp. Sens. 1A", "Resp. Sens. 1B", "Resp. Sens. 1"], strong: "Resp. Sens. 1A", says: "respiratory" },
} as const;
/** From which share on a sensitizer classifies a mixture, its own limit or the generic one; and from which it is named. Null for none. */
function sensitizerLimits(item: Held, { classes, strong }: (typeof SENSITIZERS)[keyof typeof SENSITIZERS], rules: HazardRules) {
  const mine = classes.filter((each) => item.classes.has(each));
  if (mine.length === 0) return null;
  const own = classes.flatMap((each) => item.limits.get(each) ?? []);
  const generic = mine.some((each) => each === strong) ? rules.sensitiser.strong : rules.sensitiser.other;
  const limit = own.length > 0 ? Math.min(...own) : generic;
  // A limit of its own above the generic one does not raise the share from which it is named (annex I, table 3.4.6, note 1).
  return { limit, named: Math.min(limit, generic) * rules.sensitiser.namedFrom };
}
/** What has to be named where it classifies the mixture. */
const NAMED = /^(Acute Tox|Skin Corr|Eye Dam|Muta|Carc|Repr|STOT)/;

/** Sums that are met but for the last digit of a binary fraction are met. */
const reaches = (value: number, limit: number) => value >= limit - 1e-9;

/**
 * Classes of a mixture, and what they put on its label, by additivity. A draft: rules differ by country, and a competent person
 * has to check every label. @param rules CLP, annex I, where nothing else is said
 */
export function answerHazard(request: HazardRequest, rules: HazardRules = CLP): HazardAnswer {
  const held = heldBy(request).filter((item) => item.c > 0);
  const cutOffs = request.cut_offs ?? false;
  const [chosen, other] = [classify(held, rules, cutOffs), classify(held, rules, !cutOffs)];
  const labeled = ({ classes, euh }: Classified) => ({ ...labelOf([...classes], rules), euh });
  const [here, there] = [labeled(chosen), labeled(other)];
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

/** Returns the classes of a mixture in the order of its label, and its EUH sentences, without what else the answer says. */
export function hazardClassesOf(request: HazardRequest, rules: HazardRules = CLP): string[] {
  const held = heldBy(request).filter((item) => item.c > 0);
  const { classes, euh } = classify(held, rules, request.cut_offs ?? false);
  return [...labelOf([...classes], rules).classes, ...euh];
}

interface Classified extends Pick<HazardAnswer, "euh" | "contains" | "working" | "missing"> {
  classes: Set<string>;
}

/** A mixture while it is classified: the classes that were met so far, and how. */
interface Classification {
  held: readonly Held[];
  rules: HazardRules;
  classes: Set<string>;
  contains: Set<string>;
  working: HazardAnswer["working"];
  missing: Set<string>;
  /** Holds a value against a limit, writes it down, and gives the class where it is reached; whether it is. Nothing to be tested of is not met. */
  test: (name: string, value: number, limit: number, from: readonly Held[], gives: string | null) => boolean;
  /** Whether so little of it is not regarded for a class, where cut-off values are used. */
  tooLittle: (item: Held, name: string) => boolean;
  /** The ingredients of any of these classes of which there is not too little. */
  having: (...names: string[]) => Held[];
}

function classificationOf(held: readonly Held[], rules: HazardRules, cutOffs: boolean): Classification {
  const classes = new Set<string>();
  const contains = new Set<string>();
  const working: HazardAnswer["working"] = [];
  const test = (name: string, value: number, limit: number, from: readonly Held[], gives: string | null): boolean => {
    if (from.length === 0) return false;
    const met = reaches(value, limit);
    working.push({ rule: name, value: digits(value), limit, met, from: from.map((item) => item.name) });
    if (met && gives) {
      classes.add(gives);
      if (NAMED.test(gives)) for (const item of from) contains.add(item.name);
    }
    return met;
  };
  const tooLittle = (item: Held, name: string): boolean => {
    const cut = cutOffs ? rules.cutOffs[name.replace(/^(Acute Tox\. \d) \w+$/, "$1").replace(/ H\d+$/, "")] : undefined;
    if (cut === undefined) return false;
    const m = name === "Aquatic Acute 1" ? item.mAcute : name === "Aquatic Chronic 1" ? item.mChronic : null;
    return item.c < Math.min(cut / (m ?? 1), item.limits.get(name) ?? cut) - 1e-12;
  };
  const having = (...names: string[]) => held.filter((item) => names.some((name) => item.classes.has(name) && !tooLittle(item, name)));
  return { held, rules, classes, contains, working, missing: new Set(), test, tooLittle, having };
}

const sum = (list: readonly Held[], of: (item: Held) => number) => list.reduce((all, item) => all + of(item), 0);
/** A share weighs as much as a limit of its own is below the generic one. */
const weighed = (item: Held, generic: number, own: number | undefined) => (own === undefined ? item.c : (item.c * generic) / own);

/** Acute toxicity by one route: one over the sum of shares over their estimates. */
function classifyAcute(
  { held, classes, contains, working, missing, tooLittle }: Classification,
  { route, form, says, categories }: HazardRules["acute"][number],
): void {
  const mostToxic = categories.at(-1)?.upTo ?? 0;
  const toxic = held.flatMap((item) => {
    if (form && item.inhaledAs !== form) return [];
    // The graver category first, where an ingredient carries two.
    const category = categories.find((each) => item.classes.has(`Acute Tox. ${each.category} ${route}`));
    const given = item.ate[route];
    const ate = given ?? category?.point ?? null;
    if (ate === null || !(category || ate <= mostToxic)) return [];
    const own = categories.find((each) => ate <= each.upTo);
    if (tooLittle(item, `Acute Tox. ${(category ?? own)?.category ?? 4} ${route}`)) return [];
    if (category && given === null)
      missing.add(`ATE (${route}) of ${item.name}: ${category.point} ${says.split(", ")[1]} was taken, which stands for its category`);
    return [{ one: item, ate }];
  });
  if (toxic.length === 0) return;
  const ate = 100 / toxic.reduce((all, { one: item, ate: each }) => all + item.c / each, 0);
  const category = categories.find((each) => ate <= each.upTo);
  working.push({
    rule: `acute toxicity, ${says.replace(", ", ": 100 / Σ (C / ATE), ")}`,
    value: digits(ate),
    limit: mostToxic,
    met: category !== undefined,
    from: toxic.map(({ one: item }) => item.name),
  });
  if (!category) return;
  classes.add(`Acute Tox. ${category.category} ${route}`);
  for (const { one: item } of toxic) contains.add(item.name);
}

/** Acute toxicity by each route. Of dust and of vapor the graver counts. */
function classifyAllAcute(at: Classification): void {
  const { classes } = at;
  for (const item of at.rules.acute) classifyAcute(at, item);
  const inhaled = [1, 2, 3, 4].map((n) => `Acute Tox. ${n} inhalation`).filter((name) => classes.has(name));
  for (const milder of inhaled.slice(1)) classes.delete(milder);
}

/** Harm to the skin. What corrodes counts ten times for irritation, or by the sheet's own limit for it. Returns what corrodes. */
function classifySkin({ rules, test, having }: Classification): Held[] {
  const { corrodes, irritates } = rules.skin;
  const corrosive = having("Skin Corr. 1");
  const irritant = having("Skin Irrit. 2").filter((item) => !corrosive.includes(item));
  const burning = (item: Held) => weighed(item, corrodes, item.limits.get("Skin Corr. 1"));
  const reddening = (item: Held) =>
    item.classes.has("Skin Corr. 1") && !item.limits.has("Skin Irrit. 2") ? 10 * burning(item) : weighed(item, irritates, item.limits.get("Skin Irrit. 2"));
  if (!test("skin: Σ Corr. 1", sum(corrosive, burning), corrodes, corrosive, "Skin Corr. 1")) {
    test("skin: Σ Irrit. 2", sum(irritant, reddening), irritates, irritant, "Skin Irrit. 2");
    if (corrosive.length > 0)
      test("skin: 10 × Corr. 1 + Irrit. 2", sum([...corrosive, ...irritant], reddening), irritates, [...corrosive, ...irritant], "Skin Irrit. 2");
  }
  return corrosive;
}

/** Harm to the eye: what burns the skin damages the eye; one of both classes counts once. */
function classifyEye({ rules, classes, working, test, having }: Classification, corrosive: readonly Held[]): void {
  const eye = rules.eye;
  const damaging = having("Skin Corr. 1", "Eye Dam. 1");
  const stinging = having("Eye Irrit. 2").filter((item) => !damaging.includes(item));
  const damageLimit = (item: Held): number => {
    const [own, corr] = [item.limits.get("Eye Dam. 1"), item.limits.get("Skin Corr. 1")];
    if (own !== undefined || corr === undefined) return own ?? eye.damages;
    // A sheet that says from where the eye is irritated says up to where it is no worse.
    return item.limits.has("Eye Irrit. 2") ? corr : Math.min(corr, eye.damages);
  };
  const damagesEye = (item: Held) => weighed(item, eye.damages, damageLimit(item));
  const stings = (item: Held) => {
    const own = item.limits.get("Eye Irrit. 2");
    return damaging.includes(item) && own === undefined ? 10 * damagesEye(item) : weighed(item, eye.irritates, own);
  };
  if (classes.has("Skin Corr. 1")) {
    working.push({ rule: "eye: a mixture that corrodes the skin damages the eye", value: 1, limit: 1, met: true, from: corrosive.map((item) => item.name) });
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
}

/** Sensitizers, each by itself; named where they are not said by their class. Returns the EUH sentences that follow. */
function classifySensitizers({ held, rules, classes, contains, test }: Classification): string[] {
  const sensitizing = new Set<string>();
  for (const [gives, harm] of Object.entries(SENSITIZERS))
    for (const item of held) {
      const limits = sensitizerLimits(item, harm, rules);
      if (!limits) continue;
      test(`${harm.says} sensitizer ${item.name}`, item.c, limits.limit, [item], gives);
      if (!reaches(item.c, Math.min(limits.named, limits.limit))) continue;
      contains.add(item.name);
      if (!reaches(item.c, limits.limit)) sensitizing.add(gives);
    }
  return [...sensitizing].some((gives) => !classes.has(gives)) ? ["EUH208"] : [];
}

/** What is judged ingredient by ingredient, harm to organs, and what does not apply to a solid. */
function classifyOneByOne({ held, rules, classes, working, test, having }: Classification): void {
  for (const [name, limit] of Object.entries(rules.byItself))
    for (const item of having(name)) test(`${name}, ${item.name}`, item.c, item.limits.get(name) ?? limit, [item], name);
  // Harm to organs: of category 1, less of it is of category 2.
  for (const harm of ["STOT SE", "STOT RE"])
    for (const item of held) {
      const [first, second] = [`${harm} 1`, `${harm} 2`];
      const { grave, lesser } = rules.organs;
      if (item.classes.has(first)) {
        if (test(`${first}, ${item.name}`, item.c, item.limits.get(first) ?? grave, [item], first)) continue;
        test(`${second}, ${item.name}`, item.c, item.limits.get(second) ?? Math.min(lesser, item.limits.get(first) ?? lesser), [item], second);
      } else if (item.classes.has(second)) test(`${second}, ${item.name}`, item.c, item.limits.get(second) ?? grave, [item], second);
    }
  for (const harm of ["STOT SE", "STOT RE"]) if (classes.has(`${harm} 1`)) classes.delete(`${harm} 2`);
  for (const name of ["STOT SE 3", "STOT SE 3 H336"]) {
    const breathed = having(name);
    const own = (item: Held) => weighed(item, rules.breathed, item.limits.get(name));
    test(`Σ ${name}`, sum(breathed, own), rules.breathed, breathed, name);
  }
  for (const name of rules.ofLiquids)
    for (const item of having(name))
      working.push({ rule: `${name} does not apply to a solid candle`, value: digits(item.c), limit: 100, met: false, from: [item.name] });
}

/** Harm to water, with M-factors. */
function classifyWater({ rules, missing, test, having }: Classification): void {
  const acute = having("Aquatic Acute 1");
  const chronic = [1, 2, 3, 4].map((n) => having(`Aquatic Chronic ${n}`));
  const [first, second, third] = chronic as [Held[], Held[], Held[], Held[]];
  for (const item of acute) if (item.mAcute === null) missing.add(`M-factor of ${item.name}: 1 was taken`);
  for (const item of first) if (item.mChronic === null) missing.add(`M-factor of ${item.name}: 1 was taken`);
  const plain = (list: readonly Held[]) => sum(list, (item) => item.c);
  const times = (list: readonly Held[]) => sum(list, (item) => item.c * (item.mChronic ?? 1));
  test(
    "water: Σ M · C, acute 1",
    sum(acute, (item) => item.c * (item.mAcute ?? 1)),
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
}

function classify(held: readonly Held[], rules: HazardRules, cutOffs: boolean): Classified {
  const at = classificationOf(held, rules, cutOffs);
  classifyAllAcute(at);
  classifyEye(at, classifySkin(at));
  const euh = classifySensitizers(at);
  classifyOneByOne(at);
  classifyWater(at);
  return { classes: at.classes, euh, contains: [...at.contains].sort(), working: at.working, missing: [...at.missing] };
}

/** Pictograms, signal word and H sentences of classes, with what leaves what out. */
function labelOf(classes: string[], { classes: table }: HazardRules): Pick<HazardAnswer, "classes" | "signal" | "pictograms" | "h"> {
  const order = Object.keys(table);
  const sorted = classes.sort((a, b) => order.indexOf(a) - order.indexOf(b));
  const found = sorted.map((name) => ({ name, ...(table[name] as ClassRule) }));
  const has = (pictogram: string) => found.some((item) => item.pictogram === pictogram);
  const shown = found.filter(({ name, pictogram }) => {
    if (pictogram !== "GHS07") return pictogram !== null;
    // Article 26: beside the skull none; beside the corrosion sign not for skin and eye; nor beside the sign of what one cannot breathe, with the skin's allergy.
    if (has("GHS06")) return false;
    const ofSkinOrEye = name === "Skin Irrit. 2" || name === "Eye Irrit. 2";
    if (has("GHS05") && ofSkinOrEye) return false;
    return !(sorted.includes("Resp. Sens. 1") && (ofSkinOrEye || name === "Skin Sens. 1"));
  });
  const h = found.map((item) => item.h);
  return {
    classes: sorted,
    signal: found.some((item) => item.signal === "Danger") ? "Danger" : found.some((item) => item.signal === "Warning") ? "Warning" : null,
    pictograms: [...new Set(shown.map((item) => item.pictogram as string))].sort(),
    // Harm that lasts says the acute harm to water too; burns say the damage to the eye.
    h: [...new Set(h.filter((text) => !(text === "H400" && h.includes("H410")) && !(text === "H318" && h.includes("H314"))))].sort(),
  };
}
