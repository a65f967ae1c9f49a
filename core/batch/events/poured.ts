import { fillsProduct, poursOf } from "../../process/process";
import { upcastStepId } from "../../process/upcast";
import { containerLines } from "../../product/bill";
import { LARGEST_MASS_MG } from "../../units/mass";
import { COLDEST } from "../../units/temperature";
import type { BatchPlan } from "../plan";
import { type BatchState, PACES, WARMED, WICKS_WERE } from "../state";
import { atWork, batchEvent, noSuchStep, productOf } from "./event-type";

/** Returns what a pour filled: as it says, or, where it does not, all that is planned. */
const filledBy = (payload: { step: string; filled: { product: string; count: number }[] }, plan: BatchPlan) => {
  if (payload.filled.length > 0) return payload.filled;
  const step = poursOf(plan.process.steps).find((pour) => pour.id === payload.step);
  return plan.products.filter((_one, index) => fillsProduct(step, index)).map((product) => ({ product: product.key, count: product.count }));
};

/**
 * A pour was done: how many pieces of each product were filled, their weights where they were taken, the wax left over, the room
 * temperature, and whether the vessels were warmed.
 */
export const poured = batchEvent({
  kind: "poured",
  version: 3,
  payload: ({ z }) =>
    z.object({
      step: z.string().max(60),
      filled: z
        .array(
          z.object({
            product: z.string().max(60),
            count: z.number().int().min(0).max(100_000),
            weightsMg: z.array(z.number().int().min(1).max(LARGEST_MASS_MG)).max(1_000).optional(),
          }),
        )
        .max(200),
      leftMg: z.number().int().min(0).max(LARGEST_MASS_MG).nullable(),
      roomCelsius: z.number().int().min(COLDEST).max(6_000, "Hotter than any room.").nullable(),
      warmed: z.enum(WARMED).nullable(),
      pace: z.enum(PACES).optional(),
      tapped: z.boolean().optional().describe("the jars, for bubbles"),
      wicksWere: z.enum(WICKS_WERE).optional(),
    }),
  upcast: (old) =>
    "act" in old
      ? upcastStepId(old)
      : {
          step: "pour",
          filled: [],
          leftMg: null,
          roomCelsius: null,
          warmed: old.warmedJars === true ? "yes" : old.warmedJars === false ? "no" : null,
        },
  validate: (state, payload, plan) => {
    if (!poursOf(plan.process.steps).some((pour) => pour.id === payload.step)) return noSuchStep;
    for (const item of payload.filled) {
      const product = productOf(plan, item.product);
      if (!product) return { field: "filled", message: "This batch has no such product." };
      if (item.count > product.count * 2 + 20)
        return { field: "filled", message: `${item.count} ${product.name} filled, where ${product.count} were planned: look at the count again.` };
    }
    return atWork(state) ?? (state.pours[payload.step] ? { field: "kind", message: "This pour is recorded already. Correct that entry to change it." } : null);
  },
  apply: (state, { payload, happenedAt, personId }, plan) => {
    state.pours[payload.step] = {
      at: happenedAt,
      personId,
      filled: payload.filled.length > 0 ? payload.filled : filledBy(payload, plan),
      leftMg: payload.leftMg,
      roomCelsius: payload.roomCelsius,
      warmed: payload.warmed,
      ...(payload.pace ? { pace: payload.pace } : {}),
      ...(payload.tapped === undefined ? {} : { tapped: payload.tapped }),
      ...(payload.wicksWere ? { wicksWere: payload.wicksWere } : {}),
    };
    state.onHeat = null;
  },
  stockUse: (state: BatchState, payload, plan) =>
    filledBy(payload, plan).flatMap(({ product: key, count }) => {
      const product = productOf(plan, key);
      // What an earlier pour filled already stands in its container.
      const before = Object.values(state.pours).reduce((most, item) => Math.max(most, item.filled.find((other) => other.product === key)?.count ?? 0), 0);
      return product
        ? containerLines(product, Math.max(0, count - before)).flatMap((line) =>
            line.amount > 0 ? [{ materialId: line.materialId, amount: line.amount }] : [],
          )
        : [];
    }),
  correctableField: null,
  describe: (payload, plan, say) => {
    const filled = payload.filled.map((item) => {
      const product = productOf(plan, item.product);
      return `${item.count} of ${product?.count ?? "?"} ${product?.name ?? ""}`;
    });
    const more = [
      payload.warmed === null ? "" : payload.warmed === "no" ? "jars not warmed" : payload.warmed === "yes" ? "jars warmed" : `jars warmed: ${payload.warmed}`,
      payload.roomCelsius === null ? "" : `room ${say.t(payload.roomCelsius)}`,
      payload.leftMg === null ? "" : `${say.g(payload.leftMg)} left over`,
      payload.pace ?? "",
      payload.tapped === undefined ? "" : payload.tapped ? "jars tapped" : "jars not tapped",
      payload.wicksWere && payload.wicksWere !== "left alone" ? `wicks ${payload.wicksWere}` : "",
    ].filter(Boolean);
    return { what: ["poured", ...more].join(", "), figure: filled.join(", ") };
  },
  columns: (payload, plan) => ({
    what: [
      ...payload.filled.map((item) => `${item.count} × ${productOf(plan, item.product)?.name ?? ""}`),
      ...(payload.warmed === null ? [] : [payload.warmed === "no" ? "jars not warmed" : "jars warmed"]),
    ].join(", "),
    ...(payload.leftMg === null ? {} : { grams: payload.leftMg / 1_000 }),
    ...(payload.roomCelsius === null ? {} : { shown_celsius: payload.roomCelsius / 100 }),
  }),
});
