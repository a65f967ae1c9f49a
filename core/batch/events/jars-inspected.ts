import { defectOf } from "../../defects/defects";
import { EXTENT_WORDS } from "../../defects/places";
import { filledOf, seenInRound } from "../jars";
import { batchEvent, closedAlready, MAX_JARS, notPoured, productOf } from "./event-type";

/** Jars were inspected that look alike: the flaws that they show, or none. */
export const jarsInspected = batchEvent({
  kind: "jarsInspected",
  formerName: "seen",
  version: 1,
  payload: ({ z, seenFlaw }) =>
    z.object({
      product: z.string().min(1).max(60).describe("its key within the batch"),
      jars: z.number().int().min(1, "At least 1 jar.").max(MAX_JARS),
      flaws: z.array(seenFlaw).max(12, "At most 12 flaws on one jar."),
    }),
  validate: (state, payload, plan) => {
    const early = notPoured(state, "inspected");
    if (early) return early;
    const product = productOf(plan, payload.product);
    if (!product) return { field: "product", message: "This batch has no such product." };
    const left = filledOf(plan, state, payload.product) - seenInRound(state, payload.product);
    if (payload.jars > left)
      return { field: "jars", message: left > 0 ? `${left} of ${product.name} are still to be looked at.` : `All of ${product.name} were looked at already.` };
    return closedAlready(state);
  },
  apply: (state, { id, happenedAt, payload }) => {
    state.seen.push({ eventId: id, at: happenedAt, product: payload.product, jars: payload.jars, flaws: payload.flaws, round: state.rounds });
    for (const flaw of payload.flaws) state.flaws.push({ eventId: id, at: happenedAt, flaw: { ...flaw, product: payload.product, jars: payload.jars } });
  },
  describe: (payload, plan) => ({
    what: `${payload.jars} × ${productOf(plan, payload.product)?.name ?? "vessel"} looked at`,
    figure:
      payload.flaws.length === 0
        ? "fine"
        : payload.flaws.map((flaw) => `${defectOf(flaw.defect)?.name ?? flaw.defect}, ${EXTENT_WORDS[flaw.extent]}`).join("; "),
    tone: payload.flaws.some((flaw) => defectOf(flaw.defect)?.classes.includes("S")) ? "safety" : "ink",
  }),
  columns: (payload, plan) => ({
    what: `${payload.jars} × ${productOf(plan, payload.product)?.name ?? ""}: ${payload.flaws.map((flaw) => `${flaw.defect} ${flaw.place} ${flaw.extent}`).join("; ") || "fine"}`,
  }),
});
