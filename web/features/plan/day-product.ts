import type { DemandProduct } from "@hearth/core";

/** A product as a day makes it, with its container to start a batch from. */
export type DayProduct = DemandProduct & { containerId: string };
