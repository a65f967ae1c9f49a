import type { z } from "zod";

type Schema = typeof import("./schema");
export type PlannedProduct = z.output<Schema["plannedProduct"]>;
export type ProductWicks = z.output<Schema["productWicks"]>;

/** Whether pouring it takes a new body from the shelf: moulds are used again, and upper layers go into what is there. */
export const takesBody = (product: Pick<PlannedProduct, "body" | "part">): boolean =>
  product.body === "vessel" && !(product.part?.kind === "layer" && product.part.number > 1);
