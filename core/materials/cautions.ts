/** A caution that stands where something is put on the shelf. "stop": it is not to be filled or sold. */
export interface ShelfCaution {
  weight: "stop" | "take care";
  message: string;
}

export const VESSEL_MATERIALS = ["heat-safe glass", "frosted glass", "metal", "ceramic", "plastic", "wood", "not known"] as const;
/** What a vessel is for. Only where no flame stands in it may it be of plastic; tealight cups where their supplier rates them for it. */
export const VESSEL_USES = ["candle", "melts", "tealight cup"] as const;
export const VESSEL_STATES = ["for sale", "test jar", "cracked", "may hold lead"] as const;

/** What can be laid into a candle, and what makers would lay in and must not. */
export const EMBED_MATERIALS = ["shell", "stone", "glass", "ceramic", "metal", "sand", "wax", "plastic", "wood", "dried plant", "paper", "not known"] as const;
const BURNS = ["plastic", "wood", "dried plant", "paper"];

/** What makers put into candles and should not; and what settles or clogs. Common practice, no source. */
const NOT_IN_A_CANDLE: [RegExp, string][] = [
  [/crayon/i, "Crayons do not belong in a candle: their pigment clogs the wick."],
  [/glitter|sequin|confetti/i, "Glitter near the wick burns or clogs it: keep it out of the candle."],
  [/petal|herb|dried|leaf|leaves|flower|bark|twig|cinnamon stick|pine cone/i, "Dried plants near the wick catch fire: nothing that burns goes into a candle."],
  [/mica|shimmer/i, "Mica settles unless it is stirred in when the wax is nearly cold, and it clogs wicks."],
  [/food colou?r|water-based/i, "Water-based color does not dissolve in wax, and water in hot wax spits."],
];

/** Returns the cautions on a material's name. */
export const cautionsOnMaterial = (name: string): ShelfCaution[] =>
  NOT_IN_A_CANDLE.flatMap(([pattern, message]): ShelfCaution[] => (pattern.test(name) ? [{ weight: "take care", message }] : []));

/** A vessel as far as cautions depend on it. */
export interface CautionedVessel {
  material: string;
  state?: string | null | undefined;
  use?: string | null | undefined;
  /** The day of a lead test that it passed. */
  leadTestedOn?: string | null | undefined;
}

/** Returns the cautions on a vessel. The supplier, local rules and qualified advice come first. */
export function cautionsOnVessel(vessel: CautionedVessel): ShelfCaution[] {
  const out: ShelfCaution[] = [];
  if (vessel.material === "plastic" && vessel.use === "melts")
    out.push({ weight: "take care", message: "Plastic is for melts only: no wick and no flame. Pour as cool as its supplier says, or it softens." });
  else if (vessel.material === "plastic" && vessel.use === "tealight cup")
    out.push({ weight: "take care", message: "Only cups that their supplier rates for burning candles. Follow the supplier's data and local rules." });
  else if (vessel.material === "plastic" || vessel.material === "wood")
    out.push({
      weight: "stop",
      message: `A vessel of ${vessel.material} softens or burns under a flame: only heat-safe glass, metal or ceramic are filled with candles.${vessel.material === "plastic" ? " If it holds wax melts without a wick, say so under “What it is for”." : ""}`,
    });
  if (vessel.material === "not known")
    out.push({ weight: "take care", message: "Of what it is made is not known. Find out before it is filled: only heat-safe glass, metal or ceramic." });
  if (vessel.state === "cracked") out.push({ weight: "stop", message: "A cracked vessel is thrown away: never filled, tested or sold." });
  if (vessel.state === "may hold lead" && vessel.leadTestedOn)
    out.push({ weight: "take care", message: `Old and glazed or painted: it passed a lead test on ${vessel.leadTestedOn}. Keep the result with it.` });
  else if (vessel.state === "may hold lead")
    out.push({ weight: "stop", message: "Old glazed or painted vessels may hold lead, which heat can release: have it tested, or do not use it." });
  if (vessel.state === "test jar")
    out.push({ weight: "take care", message: "A test jar (chipped): for your own test burns only, kept apart from jars for sale." });
  return out;
}

/** Returns why a vessel must not be filled, with a wick or without one; null if nothing is known against it. */
export const notToBeFilled = (vessel: CautionedVessel & { name: string }, isWicked = false): string | null => {
  const stop = cautionsOnVessel(vessel).find((caution) => caution.weight === "stop");
  if (stop) return `${vessel.name}: ${stop.message}`;
  return isWicked && vessel.use === "melts" ? `${vessel.name}: it is for melts, and no flame may stand in it. Choose no wick.` : null;
};

/** Returns the cautions on what is laid into a candle. Common practice, no source; the supplier, local rules and qualified advice come first. */
export function cautionsOnEmbed({ name, material }: { name: string; material: string }): ShelfCaution[] {
  const burning = NOT_IN_A_CANDLE.find(([pattern, message]) => pattern.test(name) && message.includes("burn"));
  if (BURNS.includes(material)) return [{ weight: "stop", message: `A piece of ${material} can burn: only what does not burn is laid into a candle.` }];
  if (burning) return [{ weight: "stop", message: burning[1] }];
  if (material === "not known") return [{ weight: "stop", message: "Of what it is made is not known. Find out before it is laid into a candle." }];
  if (material === "wax") return [{ weight: "take care", message: "A figure of wax melts in hot wax: lay it in as cool as the process allows." }];
  return [
    {
      weight: "take care",
      message: "Clean and dry, and away from the wick: water in hot wax spits, and what touches the flame gets hot enough to crack glass.",
    },
  ];
}

/** Returns why something must not be laid into a candle; null if nothing is known against it. */
export const notToBeLaidIn = (embed: { name: string; material: string }): string | null => {
  const stop = cautionsOnEmbed(embed).find((caution) => caution.weight === "stop");
  return stop ? `${embed.name}: ${stop.message}` : null;
};
