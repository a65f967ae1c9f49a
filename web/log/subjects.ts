/** The path segment of each aggregate in the routes that take its entries. Earlier versions knew only batches. */
export const AGGREGATE_PATHS = { batch: "batches", trial: "trials", order: "orders" } as const;
export type AggregateName = keyof typeof AGGREGATE_PATHS;
/** What can wait on a device: entries of an aggregate, and notes with their photographs. */
export type WaitingName = AggregateName | "note";
