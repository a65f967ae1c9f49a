import { JAR_STATUS_WORDS, JAR_STATUSES_BY_HAND } from "../jar-status";
import { jarStatusesOf } from "../jars";
import { cureTimes, pouredAt } from "../phase";
import { batchEvent, MAX_JARS, notPoured, productOf } from "./event-type";

/** Jars that became something else: from one state to another, so that all of them always add up to what was filled. */
export const statusChanged = batchEvent({
  kind: "statusChanged",
  formerName: "fated",
  version: 2,
  payload: ({ z }) =>
    z
      .object({
        product: z.string().min(1).max(60).describe("its key within the batch"),
        jars: z.number().int().min(1, "At least 1 jar.").max(MAX_JARS),
        from: z.enum(JAR_STATUSES_BY_HAND),
        to: z.enum(JAR_STATUSES_BY_HAND, { error: "Say what becomes of them." }),
        /** To whom, at which market. */
        whom: z.string().trim().max(120),
        /** Why they were sold before the least cure. */
        early: z.string().trim().max(300).optional(),
      })
      .refine((one) => one.from !== one.to, { path: ["to"], message: "That is what they are already." }),
  upcast: ({ from, to, ...old }) => ({ ...old, from: from === "tester" ? "testing" : from, to: to === "tester" ? "testing" : to }),
  validate: (state, one, plan, at) => {
    const early = notPoured(state, "on the rack");
    if (early) return early;
    if (!productOf(plan, one.product)) return { field: "product", message: "This batch has no such product." };
    const { counts, stopped } = jarStatusesOf(plan, state, one.product);
    if (one.jars > counts[one.from])
      return { field: "jars", message: `${counts[one.from]} ${counts[one.from] === 1 ? "is" : "are"} ${JAR_STATUS_WORDS[one.from]}.` };
    const sells = one.to === "sold" || one.to === "given" || one.to === "second";
    if (sells && one.from === "rack" && one.jars > counts.rack - stopped)
      return {
        field: "jars",
        message: `${stopped} have a safety flaw and must not be sold or given away: ${Math.max(0, counts.rack - stopped)} may.`,
        advisory: true,
      };
    const poured = pouredAt(plan, state);
    if (one.to === "sold" && at && poured && Date.parse(at) < Date.parse(cureTimes(poured, plan.process).testFrom) && !one.early)
      return { field: "early", message: "They have not had their least cure. Say why they are sold now; the record keeps it.", advisory: true };
    return null;
  },
  apply: (state, { id, happenedAt, payload: one }) => {
    state.jarStatuses.push({ eventId: id, at: happenedAt, ...one });
  },
  describe: (one, plan) => ({
    what: `${one.jars} × ${productOf(plan, one.product)?.name ?? "vessel"}: ${JAR_STATUS_WORDS[one.to]}${one.whom ? `, ${one.whom}` : ""}`,
    figure: one.from === "rack" ? "" : `were ${JAR_STATUS_WORDS[one.from]}`,
    remark: one.early ? `before the least cure: ${one.early}` : "",
    tone: one.early ? "hot" : "ink",
  }),
  columns: (one, plan) => ({ what: `${one.jars} × ${productOf(plan, one.product)?.name ?? ""} ${one.from} to ${one.to}${one.whom ? `, ${one.whom}` : ""}` }),
});
