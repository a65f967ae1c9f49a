import { containerLines } from "../../product/bill";
import { atWork, batchEvent, productOf } from "./event-type";

/** Why a vessel was swapped before the pour, and what becomes of it: a chipped one may be kept for test burns, a cracked one is thrown away. */
export const SWAP_REASONS = { cracked: "cracked: thrown away", chipped: "chipped: kept as a test jar", dirty: "dirty: washed again" } as const;
export type SwapReason = keyof typeof SWAP_REASONS;
export const SWAP_REASON_NAMES = Object.keys(SWAP_REASONS) as [SwapReason, ...SwapReason[]];

/** Vessels of a product were swapped for others before they were filled. A cracked one is gone from stock; the others stay in it. */
export const swapped = batchEvent({
  kind: "swapped",
  version: 1,
  payload: ({ z }) => z.object({ product: z.string().max(60), jars: z.number().int().min(1, "At least one.").max(1_000), reason: z.enum(SWAP_REASON_NAMES) }),
  validate: (state, payload, plan) =>
    atWork(state) ?? (productOf(plan, payload.product) ? null : { field: "product", message: "This batch has no such product." }),
  apply: (state, { id, payload, happenedAt }) => {
    state.swaps.push({ eventId: id, at: happenedAt, ...payload });
  },
  stockUse: (_state, payload, plan) => {
    const product = productOf(plan, payload.product);
    if (!product || payload.reason !== "cracked") return [];
    return containerLines(product, payload.jars).flatMap((line) => (line.kind === "vessel" ? [{ materialId: line.materialId, amount: line.amount }] : []));
  },
  correctableField: { field: "jars", label: "How many", is: "count" },
  describe: (payload, plan) => ({ what: `swapped ${payload.jars} × ${productOf(plan, payload.product)?.name ?? ""}, ${SWAP_REASONS[payload.reason]}` }),
  columns: (payload, plan) => ({ what: `${payload.jars} × ${productOf(plan, payload.product)?.name ?? ""}, ${payload.reason}` }),
});
