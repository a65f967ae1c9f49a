import { defectOf } from "../../defects/defects";
import { filledOf } from "../jars";
import { batchEvent, closedAlready, MAX_JARS, notPoured, productOf } from "./event-type";

export const REPAIRS = ["heat gun", "relief holes and top-up", "remelted", "dabbed dry", "other"] as const;
export type Repair = (typeof REPAIRS)[number];

/** A flaw was repaired: by which method, on how many jars, and with what material. */
export const repaired = batchEvent({
  kind: "repaired",
  version: 1,
  payload: ({ z }) =>
    z.object({
      product: z.string().min(1).max(60),
      defect: z.string().min(1).max(60),
      jars: z.number().int().min(1, "At least 1 jar.").max(MAX_JARS),
      how: z.enum(REPAIRS, { error: "Choose how it was reworked." }),
      /** Wax that went in, of the same formula. */
      mg: z.number().int().min(0).max(100_000_000).nullable(),
    }),
  validate: (state, payload, plan) => {
    const early = notPoured(state, "mended");
    if (early) return early;
    if (!defectOf(payload.defect)) return { field: "defect", message: "Choose the flaw that was reworked." };
    const product = productOf(plan, payload.product);
    if (!product) return { field: "product", message: "This batch has no such product." };
    if (defectOf(payload.defect)?.id === "cracked_glass") return { field: "defect", message: "A cracked vessel cannot be reworked: throw it away." };
    const filled = filledOf(plan, state, payload.product);
    return payload.jars > filled ? { field: "jars", message: `${filled} of ${product.name} were filled.` } : closedAlready(state);
  },
  apply: (state, { id, happenedAt, payload }) => {
    state.repairs.push({ eventId: id, at: happenedAt, ...payload, held: null, checkedAt: null });
  },
  describe: (payload, plan, say) => ({
    what: `${defectOf(payload.defect)?.name ?? payload.defect} reworked: ${payload.how}, ${payload.jars} × ${productOf(plan, payload.product)?.name ?? "vessel"}`,
    figure: payload.mg ? say.g(payload.mg) : "",
  }),
  columns: (payload) => ({ what: `${payload.defect} ${payload.how} ${payload.jars}`, ...(payload.mg ? { grams: payload.mg / 1_000 } : {}) }),
});
