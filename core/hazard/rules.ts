import clp from "./clp.json" with { type: "json" };

/** The label elements that a hazard class of the mixture requires. */
export interface ClassRule {
  h: string;
  pictogram: string | null;
  signal: "Warning" | "Danger" | null;
}

/** The rules of a country as data, with where they are from. Limits in percent of the mixture. */
export interface HazardRules {
  id: string;
  name: string;
  /** Where they hold. */
  where: string;
  source: string;
  /** The day of which they were written down. */
  asOf: string;
  /** By class, the graver ones of a harm first. */
  classes: Readonly<Record<string, ClassRule>>;
  /** Of liquids only: a candle is solid. */
  ofLiquids: readonly string[];
  /** By route: what stands for an ingredient of which only the category is known, and up to where a mixture is of a category. */
  acute: readonly {
    route: "oral" | "dermal" | "inhalation";
    form?: "vapor" | "dust";
    /** The route and unit in words. */
    says: string;
    categories: readonly { category: number; point: number; upTo: number }[];
  }[];
  skin: { corrodes: number; irritates: number };
  eye: { damages: number; irritates: number };
  /** `namedFrom`: the share of its limit from which a sensitiser is named. */
  sensitiser: { strong: number; other: number; namedFrom: number };
  /** Single ingredients that classify the mixture by themselves, and from which share on. */
  byItself: Readonly<Record<string, number>>;
  breathed: number;
  /** Harm to organs, once or repeated: from `grave` on the ingredient's own category, of category 1 from `lesser` on the second. */
  organs: { grave: number; lesser: number };
  /** Shares below which an ingredient is not regarded, by class: annex I, table 1.1; for water divided by M. Only where that is chosen. */
  cutOffs: Readonly<Record<string, number>>;
  water: number;
  /** Precautions by sentence, the more needful first; those that every label for the public bears; and how many at most. */
  precautions: Readonly<Record<string, readonly string[]>>;
  always: readonly string[];
  mostPrecautions: number;
}

/** The rules that this program knows: those of the European Union. Rules differ by country; another set is another file of this shape. */
export const CLP: HazardRules = clp as HazardRules;

export const HAZARD_CLASSES: readonly string[] = [
  ...Object.keys(CLP.classes),
  "Skin Sens. 1A",
  "Skin Sens. 1B",
  "Resp. Sens. 1A",
  "Resp. Sens. 1B",
  ...CLP.ofLiquids,
];

const KNOWN = new Map(HAZARD_CLASSES.map((hazardClass) => [hazardClass.toLowerCase(), hazardClass]));
/** As sheets write them, under the regulation's short names: subcategories that the rules for mixtures do not tell apart, and routes. */
const AS_WRITTEN: [RegExp, string][] = [
  [/^skin corr\. 1[abc]$/, "skin corr. 1"],
  [/^(repr|carc|muta)\. (?:1[ab]|cat(?:egory)? ?1[ab]?)$/, "$1. 1"],
  [/^acute tox\. (\d)[ ,]*\(?(?:oral|swallowed|h30[0-2])\)?$/, "acute tox. $1 oral"],
  [/^acute tox\. (\d)[ ,]*\(?(?:dermal|skin|h31[0-2])\)?$/, "acute tox. $1 dermal"],
  [/^acute tox\. (\d)[ ,]*\(?(?:inhal\.?|inhalation|inhaled|h33[0-2])\)?$/, "acute tox. $1 inhalation"],
  [/^stot se 3[ ,]*\(?(?:h335|respiratory(?: tract)?(?: irritation)?|resp\.? irrit\.?)\)?$/, "stot se 3"],
  [/^stot se 3[ ,]*\(?(?:h336|narcotic(?: effects)?|narcosis|drowsiness)\)?$/, "stot se 3 h336"],
  [/^lact$/, "lact."],
  [/^aquatic acute cat(?:egory)? ?1$/, "aquatic acute 1"],
];

/** Returns the regulation's short name of a hazard class as a sheet writes it; null for one that this program does not calculate with. */
export function classNamed(text: string): string | null {
  const plain = text.trim().toLowerCase().replace(/\s+/g, " ").replace(/\*+$/, "").trim();
  const direct = KNOWN.get(plain);
  if (direct) return direct;
  for (const [pattern, to] of AS_WRITTEN) if (pattern.test(plain)) return KNOWN.get(plain.replace(pattern, to)) ?? null;
  return null;
}

/** Returns a value rounded to six decimals, as a calculation shows it. */
export const digits = (value: number): number => Math.round(value * 1e6) / 1e6;
