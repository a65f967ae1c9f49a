import { countWords } from "../../recipe/mix";
import type { BatchPlan } from "../plan";
import { partKey } from "../state";
import { atWork, batchEvent } from "./event-type";

const partOf = (plan: BatchPlan, payload: { pot: number; componentId: string }) =>
  plan.pots[payload.pot]?.components.find((part) => part.id === payload.componentId) ?? null;

/** Drops or pieces of a dye, counted into a pot. */
export const counted = batchEvent({
  kind: "counted",
  version: 2,
  payload: ({ z }) =>
    z.object({ pot: z.number().int().min(0).max(7).default(0), componentId: z.uuid(), n: z.number().int().min(1, "Count at least one.").max(100_000) }),
  upcast: (old) => ({ pot: 0, ...old }),
  validate: (state, payload, plan) => {
    const part = partOf(plan, payload);
    if (!part) return { field: "componentId", message: "This batch has no such material." };
    return atWork(state) ?? (part.count ? null : { field: "componentId", message: `${part.name} is weighed, not counted.` });
  },
  apply: (state, { payload, happenedAt }) => {
    const key = partKey(payload.pot, payload.componentId);
    state.counted[key] = { n: (state.counted[key]?.n ?? 0) + payload.n, at: happenedAt };
  },
  stockUse: (_facts, payload, plan) => {
    const each = partOf(plan, payload)?.count?.eachMg ?? 0;
    return each > 0 ? [{ materialId: payload.componentId, amount: payload.n * each }] : [];
  },
  correctableField: { field: "n", label: "How many", is: "count", of: "drops or pieces" },
  describe: (payload, plan) => {
    const part = partOf(plan, payload);
    return { what: `counted in ${part?.name ?? "something"}`, figure: part?.count ? countWords(payload.n, part.count.of) : String(payload.n) };
  },
  columns: (payload, plan) => {
    const part = partOf(plan, payload);
    return { what: `${part?.count ? countWords(payload.n, part.count.of) : payload.n} ${part?.name ?? ""}` };
  },
});
