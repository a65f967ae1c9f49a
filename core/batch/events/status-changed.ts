import { JAR_STATUS_WORDS, JAR_STATUSES_BY_HAND } from "../jar-status";
import { jarStatusesOf } from "../jars";
import { cureTimes, pouredAt } from "../phase";
import { batchEvent, MAX_JARS, notPoured, productOf } from "./event-type";

/** Jars changed from one status to another, so that all statuses always add up to the jars that were filled. */
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
        to: z.enum(JAR_STATUSES_BY_HAND, { error: "Choose the new status." }),
        /** To whom, at which market. */
        whom: z.string().trim().max(120),
        /** Why they were sold before the least cure. */
        early: z.string().trim().max(300).optional(),
      })
      .refine((item) => item.from !== item.to, { path: ["to"], message: "They have this status already." }),
  upcast: ({ from, to, ...old }) => ({ ...old, from: from === "tester" ? "testing" : from, to: to === "tester" ? "testing" : to }),
  validate: (state, payload, plan, at) => {
    const early = notPoured(state, "on the rack");
    if (early) return early;
    if (!productOf(plan, payload.product)) return { field: "product", message: "This batch has no such product." };
    const { counts, stopped } = jarStatusesOf(plan, state, payload.product);
    if (payload.jars > counts[payload.from])
      return { field: "jars", message: `${counts[payload.from]} ${counts[payload.from] === 1 ? "is" : "are"} ${JAR_STATUS_WORDS[payload.from]}.` };
    const sells = payload.to === "sold" || payload.to === "given" || payload.to === "second";
    if (sells && payload.from === "rack" && payload.jars > counts.rack - stopped)
      return {
        field: "jars",
        message: `${stopped} have a safety flaw and must not be sold or given away; ${Math.max(0, counts.rack - stopped)} may be sold.`,
        advisory: true,
      };
    const poured = pouredAt(plan, state);
    if (payload.to === "sold" && at && poured && Date.parse(at) < Date.parse(cureTimes(poured, plan.process).testFrom) && !payload.early)
      return { field: "early", message: "They are below the minimum cure. Enter why they are sold now.", advisory: true };
    return null;
  },
  apply: (state, { id, happenedAt, payload }) => {
    state.jarStatuses.push({ eventId: id, at: happenedAt, ...payload });
  },
  describe: (payload, plan) => ({
    what: `${payload.jars} × ${productOf(plan, payload.product)?.name ?? "vessel"}: ${JAR_STATUS_WORDS[payload.to]}${payload.whom ? `, ${payload.whom}` : ""}`,
    figure: payload.from === "rack" ? "" : `were ${JAR_STATUS_WORDS[payload.from]}`,
    remark: payload.early ? `before the minimum cure: ${payload.early}` : "",
    tone: payload.early ? "hot" : "ink",
  }),
  columns: (payload, plan) => ({
    what: `${payload.jars} × ${productOf(plan, payload.product)?.name ?? ""} ${payload.from} to ${payload.to}${payload.whom ? `, ${payload.whom}` : ""}`,
  }),
});
