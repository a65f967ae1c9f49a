import { z } from "zod";

/** C: cosmetic, P: performance, S: safety. */
export type DefectClass = "C" | "P" | "S";

export interface Defect {
  id: string;
  name: string;
  classes: DefectClass[];
  /** How it looks, to tell it from its neighbours. */
  looks: string;
  /** Likely causes, most likely first. Only a record and one change at a time settle which. */
  causes: string[];
  remedy: string;
  nextBatch: string;
  /** Whether it can be seen on a set candle, or only in the nose or the flame. */
  seen: "set" | "burning";
}

const defect = (
  id: string,
  name: string,
  classes: string,
  looks: string,
  causes: string,
  remedy: string,
  nextBatch: string,
  seen: Defect["seen"] = "set",
): Defect => ({
  id,
  name,
  classes: classes.split("") as DefectClass[],
  looks,
  causes: causes.split("; "),
  remedy,
  nextBatch,
  seen,
});

/** Flaws of container candles. Looks, causes and remedies: common practice, no source. */
export const DEFECTS: readonly Defect[] = [
  defect(
    "frosting",
    "frosting",
    "C",
    "White crystals or flakes, worse on dyed soy.",
    "wax family; slow or uneven cooling; high load; dye shows it",
    "None needed.",
    "Blend in about 10 % of another wax, pour cooler, lower the load, or leave it undyed.",
  ),
  defect(
    "rough-top",
    "rough, pitted top",
    "C",
    "Bumps that come up after hours.",
    "poured too hot (soy); load above 10 %; too much dye; slow cooling",
    "Heat gun, or a thin top-up.",
    "Pour cooler (57–63 °C, 135–145 °F); load 8–9 %.",
  ),
  defect(
    "sinkhole",
    "sinkhole or crater",
    "C",
    "A dip or hole near the wick.",
    "shrinkage: poured hot; filled at once; tall vessel",
    "Relief holes and a second pour.",
    "Two pours, a lower pour, a reserve.",
  ),
  defect(
    "wick-cracks",
    "cracks round the wick",
    "C",
    "Fine cracks running from the wick.",
    "cooled too fast; hard blend; cold room",
    "Heat gun.",
    "Warmer vessel and room.",
  ),
  defect(
    "wet-spot",
    "wet spot",
    "C",
    "A patch that looks wet through the glass.",
    "wax let go of the wall: cold glass; hot pour; uneven cooling; hard additives; odd shape",
    "None: it comes back.",
    "Warm vessels, cooler pour, even spacing, softer wax.",
  ),
  defect(
    "wrinkles",
    "wrinkles, jump lines",
    "C",
    "Rings on the wall or top.",
    "poured too cool or too slowly; cold vessel",
    "Heat gun.",
    "Pour a few degrees hotter.",
  ),
  defect(
    "bubbles",
    "air bubbles",
    "C",
    "Bubbles on the wall or under the top.",
    "fast pour; hard stirring; no tapping; gel always has a few",
    "Tap the jar; heat gun.",
    "Slower, down the wall.",
  ),
  defect(
    "sweating",
    "sweating, seeping oil",
    "PS",
    "Beads of oil on top.",
    "load over what the wax holds; under-stirred; sun or heat",
    "Dab dry. Do not sell if it returns.",
    "Lower load, longer stir, shade.",
  ),
  defect(
    "scorched",
    "scorched, discoloured",
    "CP",
    "Yellow, or a burnt smell.",
    "above the ceiling too long; kept hot with fragrance (vanillin browns)",
    "Discard.",
    "A lower ceiling.",
  ),
  defect("mottling", "mottling", "C", "Snowflake pattern in the wax.", "oil in hard paraffin; slow cooling", "None.", "An additive, or faster cooling."),
  defect(
    "leaning-wick",
    "leaning or off-centre wick",
    "PS",
    "The wick stands away from the middle.",
    "not held; pulled; poured on",
    "Re-centre while the wax is liquid.",
    "Hold it with a bar; glue it down.",
  ),
  defect("pale", "pale colour", "C", "Paler than meant.", "too little dye; wax family", "None.", "More dye, another wax; dab on paper first."),
  defect("cracked-glass", "cracked glass", "S", "A crack or chip in the vessel.", "thermal shock; flawed jar", "Discard.", "Never sell or test a cracked jar."),
  defect(
    "weak-cold-throw",
    "weak cold throw",
    "P",
    "Little scent from the unlit candle.",
    "too short a cure; low load; poor match; added too hot",
    "Wait.",
    "A longer cure first.",
    "burning",
  ),
  defect(
    "weak-hot-throw",
    "weak hot throw",
    "P",
    "Little scent from the lit candle.",
    "wick small (small pool) or large (burns it off); cure; wax family; load low or high; small vessel in a big room",
    "None.",
    "In order: load within range, a strong known fragrance, wax, vessel, wick.",
    "burning",
  ),
  defect(
    "tunnelling",
    "tunnelling",
    "PS",
    "A wall of unmelted wax.",
    "wick too small; first burn too short; tested too early",
    "A longer burn.",
    "One size up.",
    "burning",
  ),
  defect(
    "mushrooming",
    "mushrooming within 2 h",
    "PS",
    "A ball of carbon on the wick.",
    "wick large or of the wrong kind; load, dye or additives",
    "Trim.",
    "One size down, or another kind.",
    "burning",
  ),
  defect(
    "soot",
    "soot, smoke",
    "S",
    "Black on the glass, smoke.",
    "wick large or of the wrong kind; load; draught; long wick",
    "Trim.",
    "One size down.",
    "burning",
  ),
  defect(
    "drowning",
    "drowning, goes out by itself",
    "P",
    "The flame shrinks and dies.",
    "wick small or clogged; heavy load, dye or mica; several wicks starving each other",
    "None.",
    "Another kind or size; a lower load.",
    "burning",
  ),
  defect(
    "jumping-flame",
    "large or jumping flame",
    "S",
    "A flame that is too tall or restless.",
    "wick large; draught; long wick",
    "Put it out and trim.",
    "One size down.",
    "burning",
  ),
  defect(
    "hot-vessel",
    "hot vessel, deep pool",
    "S",
    "The bottom shows through the pool.",
    "over-wicked; soft blend; low in a narrowing jar",
    "Put it out.",
    "One size down; a harder blend.",
    "burning",
  ),
];

export const defectOf = (id: string): Defect | undefined => DEFECTS.find((entry) => entry.id === id);

export const PLACES = ["top", "side", "bottom", "wick"] as const;
export type Place = (typeof PLACES)[number];
export const SEVERITIES = ["slight", "plain", "bad"] as const;
export type Severity = (typeof SEVERITIES)[number];

/** One flaw as it was seen: which, where, how bad, on how many of which jars. */
export const flaw = z.object({
  defect: z.enum(DEFECTS.map((entry) => entry.id) as [string, ...string[]], { error: "Choose the flaw." }),
  place: z.enum(PLACES, { error: "Say where it is: top, side, bottom or wick." }),
  severity: z.enum(SEVERITIES, { error: "Say how bad it is." }),
  vesselId: z.uuid(),
  jars: z.number().int().min(1, "At least 1 jar."),
});
export type Flaw = z.output<typeof flaw>;
