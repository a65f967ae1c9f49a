import type { z } from "zod";
import type * as schema from "./schema";

export type PlannedProduct = z.output<typeof schema.plannedProduct>;
export type ProductWicks = z.output<typeof schema.productWicks>;

/** Returns whether pouring it takes a new container from the shelf: molds are used again, and upper layers go into what is there. */
export const takesContainer = (product: Pick<PlannedProduct, "container" | "part">): boolean =>
  product.container === "vessel" && !(product.part?.kind === "layer" && product.part.number > 1);
