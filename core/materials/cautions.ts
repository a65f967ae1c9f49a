/** A caution that stands where something is put on the shelf. "stop": it is not to be filled or sold. */
export interface ShelfCaution {
  weight: "stop" | "take care";
  message: string;
}

export const VESSEL_MATERIALS = ["heat-safe glass", "metal", "ceramic", "plastic", "wood", "not known"] as const;
export const VESSEL_STATES = ["for sale", "test jar", "cracked", "may hold lead"] as const;

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

/** Returns the cautions on a vessel. The supplier, local rules and qualified advice come first. */
export function cautionsOnVessel(vessel: { material: string; state?: string | null }): ShelfCaution[] {
  const out: ShelfCaution[] = [];
  if (vessel.material === "plastic" || vessel.material === "wood")
    out.push({ weight: "stop", message: `A vessel of ${vessel.material} softens or burns: only heat-safe glass, metal or ceramic are filled.` });
  if (vessel.material === "not known")
    out.push({ weight: "take care", message: "Of what it is made is not known. Find out before it is filled: only heat-safe glass, metal or ceramic." });
  if (vessel.state === "cracked") out.push({ weight: "stop", message: "A cracked vessel is thrown away: never filled, tested or sold." });
  if (vessel.state === "may hold lead")
    out.push({ weight: "stop", message: "Old glazed or painted vessels may hold lead, which heat can release: have it tested, or do not use it." });
  if (vessel.state === "test jar")
    out.push({ weight: "take care", message: "A test jar (chipped): for your own test burns only, kept apart from jars for sale." });
  return out;
}

/** Returns why a vessel must not be filled; null if nothing is known against it. */
export const notToBeFilled = (vessel: { name: string; material: string; state?: string | null }): string | null => {
  const stop = cautionsOnVessel(vessel).find((caution) => caution.weight === "stop");
  return stop ? `${vessel.name}: ${stop.message}` : null;
};
