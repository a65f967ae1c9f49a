import { LARGEST_MASS_MG } from "../../units/mass";
import type { BatchPlan } from "../plan";
import { partKey } from "../state";
import { atWork, batchEvent } from "./event-type";

const partOf = (plan: BatchPlan, payload: { pot: number; componentId: string }) =>
  plan.pots[payload.pot]?.components.find((part) => part.id === payload.componentId) ?? null;

/** A weight put into a pot, in mg. Several of one component add up. */
export const weighed = batchEvent({
  kind: "weighed",
  version: 2,
  payload: ({ z }) =>
    z.object({
      pot: z.number().int().min(0).max(7).default(0),
      componentId: z.uuid(),
      mg: z.number().int().min(1, "The weight must be more than zero.").max(LARGEST_MASS_MG),
    }),
  upcast: (old) => ({ pot: 0, ...old }),
  validate: (state, payload, plan) => {
    const part = partOf(plan, payload);
    if (!part) return { field: "componentId", message: "This batch has no such material." };
    return atWork(state) ?? (part.count ? { field: "componentId", message: `${part.name} is counted in ${part.count.of}, not weighed.` } : null);
  },
  apply: (state, { payload, happenedAt }) => {
    const key = partKey(payload.pot, payload.componentId);
    const old = state.weighed[key];
    state.weighed[key] = { mg: (old?.mg ?? 0) + payload.mg, at: happenedAt, n: (old?.n ?? 0) + 1 };
  },
  stockUse: (_facts, payload) => [{ materialId: payload.componentId, amount: payload.mg }],
  correctableField: { field: "mg", label: "What it weighed", is: "mass" },
  describe: (payload, plan, say) => {
    const part = partOf(plan, payload);
    return { what: `weighed ${part?.name ?? "something"}`, figure: part ? say.onScale(payload.mg, part.scale) : say.g(payload.mg) };
  },
  columns: (payload, plan) => ({ what: partOf(plan, payload)?.name ?? "", grams: payload.mg / 1_000 }),
});
