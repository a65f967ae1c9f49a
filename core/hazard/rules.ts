import clp from "./clp.json" with { type: "json" };

/** What a class of the mixture puts on the label. */
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
  /** Oral: what stands for an ingredient of which only the category is known, and up to where a mixture is of a category; mg/kg. */
  oral: readonly { category: number; point: number; upTo: number }[];
  skin: { corrodes: number; corrodesToIrritate: number; irritates: number };
  eye: { damages: number; damagesToIrritate: number; irritates: number };
  /** `namedFrom`: the share of its limit from which a sensitiser is named. */
  sensitiser: { strong: number; other: number; namedFrom: number };
  /** Single ingredients that classify the mixture by themselves, and from which share on. */
  byItself: Readonly<Record<string, number>>;
  breathed: number;
  water: number;
  /** Precautions by sentence, the more needful first; those that every label for the public bears; and how many at most. */
  precautions: Readonly<Record<string, readonly string[]>>;
  always: readonly string[];
  mostPrecautions: number;
}

/** The rules that this program knows: those of the European Union. Rules differ by country; another set is another file of this shape. */
export const CLP: HazardRules = clp as HazardRules;

export const HAZARD_CLASSES: readonly string[] = [...Object.keys(CLP.classes), "Skin Sens. 1A", "Skin Sens. 1B", ...CLP.ofLiquids];
