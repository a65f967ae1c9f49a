import { z } from "zod";
import { MAX_EMBEDS } from "./embeds";
import { MAX_LAYERS } from "./parts";

const mg = z.number().int().min(0);

/** The schema of a part of a fill. */
export const fillPart = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("half") }),
  z
    .object({ kind: z.literal("layer"), number: z.number().int().min(1), of: z.number().int().min(2).max(MAX_LAYERS) })
    .refine((value) => value.number <= value.of, { path: ["number"], error: "There is no such layer." }),
]);

/** The wicks of one product: which, and how many to a piece. */
export const productWicks = z.object({
  wickId: z.uuid(),
  name: z.string(),
  kind: z.string(),
  size: z.string(),
  /** The line of sizes it belongs to; not said where it was planned before there were series. */
  series: z.string().max(120).optional(),
  count: z.number().int().min(1).max(9),
});

/**
 * A product as a batch froze it: what is poured into which container, with which wicks. The container is a vessel that goes with the
 * candle, or a mold that is used again. Inner measures in micrometers, for the drawing.
 */
export const plannedProduct = z.object({
  /** Names it within the batch. */
  key: z.string().min(1).max(60),
  container: z.enum(["vessel", "mold"]),
  containerId: z.uuid(),
  name: z.string(),
  /** What the vessel is of, and what it is for where that is no candle; absent in batches of earlier versions. */
  material: z.string().max(120).optional(),
  use: z.string().max(120).optional(),
  /** Pieces that one mold gives at a time. */
  cavities: z.number().int().min(1).optional(),
  statedFillMg: mg,
  /** What goes into one piece, from all pots together. */
  fillMg: mg.min(1),
  /** The part of it from each pot, where there are several. */
  fillsMg: z.array(mg).optional(),
  soldByWeight: z.boolean(),
  count: z.number().int().min(1).max(100_000),
  innerTopUm: z.number().int().positive(),
  innerBottomUm: z.number().int().positive(),
  heightUm: z.number().int().positive(),
  shape: z.enum(["straight", "bowl"]).optional(),
  /** Half fills and layers by hand: `fillMg` is then the weight of that part. */
  part: fillPart.optional(),
  /** None for melts. */
  wicks: productWicks.nullable(),
  /** What is laid into one piece; absent where nothing is, and in batches of earlier versions. */
  embeds: z
    .array(z.object({ embedId: z.uuid(), name: z.string(), count: z.number().int().min(1).max(1_000), volumeUl: z.number().int().min(0) }))
    .max(MAX_EMBEDS)
    .optional(),
});

/** What a product or a line of a plan takes of the shelf to be laid in. */
export const embedChoices = z
  .array(z.object({ id: z.uuid(), count: z.number().int().min(1, "At least one.").max(1_000) }))
  .max(MAX_EMBEDS, `At most ${MAX_EMBEDS} kinds are laid into one candle.`);
