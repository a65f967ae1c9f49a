import { z } from "zod";

/** What one pack draws besides its contents: a box, and lids, labels and tape by the piece. */
export const packaging = z.object({
  boxId: z.uuid().nullable(),
  parts: z
    .array(z.object({ id: z.uuid(), count: z.number().int().min(1).max(10_000) }))
    .max(30)
    .default([]),
});
export type Packaging = z.output<typeof packaging>;

/** What one pack of it holds: products by their pieces; none where goods are resold as they were bought. */
export const packContents = z
  .array(z.object({ productId: z.uuid(), count: z.number().int().min(1, "At least one candle.").max(1_000) }))
  .max(30)
  .refine((list) => new Set(list.map((item) => item.productId)).size === list.length, {
    error: "The same product stands here twice: put its pieces together.",
  });
