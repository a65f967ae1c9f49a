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
  threaded: "mold threaded, the wick straight and not tight",
  sealed: "mold sealed, and tried with water",
  plate: "a plate under the mold for leaks",
} as const;
export type Check = keyof typeof CHECKS;
export const CHECK_NAMES = Object.keys(CHECKS) as [Check, ...Check[]];

/** Checks that are made of molds, and of vessels; all others are made whatever is filled. */
const OF_MOLDS: readonly Check[] = ["sealed", "threaded", "plate"];
const OF_VESSELS: readonly Check[] = ["inspected", "straight"];

/** The checks that a batch can need: mixing is tried for gel, molds are threaded and sealed, vessels inspected. What is not wicked has no wick to be straight. */
export function checksFor(plan: Pick<BatchPlan, "pots" | "products">): Check[] {
  const [molds, vessels] = [plan.products.filter((product) => product.container === "mold"), plan.products.filter((product) => product.container === "vessel")];
  return CHECK_NAMES.filter((name) => {
    if (name === "mixed") return plan.pots.some((pot) => pot.waxFamily === "gel");
    if (OF_MOLDS.includes(name)) return name === "threaded" ? molds.some((mold) => mold.wicks !== null) : molds.length > 0;
    return !OF_VESSELS.includes(name) || vessels.length > 0;
  });
}

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
