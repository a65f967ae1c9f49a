import type { DemandProduct } from "@hearth/core";

/** A product as a day makes it, with its body to start a batch from. */
export type DayProduct = DemandProduct & { bodyId: string };
