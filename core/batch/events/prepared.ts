import type { BatchPlan } from "../plan";
import { atWork, batchEvent } from "./event-type";

/** What is looked at before anything is poured: common practice, no source. */
export const CHECKS = {
  inspected: "vessels inspected: no crack, no chip",
  dry: "wiped, dry and free of dust",
  warm: "warmed as in the process, or not cold",
  straight: "wicks centered, straight and held",
  bath: "wax melted in a double boiler",
  mixed: "oil tried with mineral oil first: no droplets",
  sealed: "mold sealed, and tried with water",
} as const;
export type Check = keyof typeof CHECKS;
export const CHECK_NAMES = Object.keys(CHECKS) as [Check, ...Check[]];

/** The checks that a batch can need: mixing is tried for gel, molds are sealed. */
export const checksFor = (plan: Pick<BatchPlan, "pots" | "products">): Check[] =>
  CHECK_NAMES.filter((checkName) =>
    checkName === "mixed"
      ? plan.pots.some((pot) => pot.waxFamily === "gel")
      : checkName === "sealed"
        ? plan.products.some((product) => product.container === "mold")
        : true,
  );

/** Vessels or molds were prepared: the checks that were ticked. A check that is missing was not made. */
export const prepared = batchEvent({
  kind: "prepared",
  version: 1,
  payload: ({ z }) => z.object({ checks: z.array(z.enum(CHECK_NAMES)).min(1, "Tick what was looked at.").max(CHECK_NAMES.length) }),
  validate: (state) => atWork(state),
  apply: (state, { payload, happenedAt }) => {
    state.prepared = { at: happenedAt, checks: payload.checks };
  },
  describe: (payload) => ({ what: `prepared: ${payload.checks.map((check) => CHECKS[check]).join("; ")}` }),
  columns: (payload) => ({ what: payload.checks.join(", ") }),
});
