import { orderEvent } from "./event-type";

/** An order is taken, or a market day is put into the calendar. */
export const started = orderEvent({
  kind: "started",
  version: 1,
  payload: ({ z, orderPlan }) => z.object({ plan: orderPlan }),
  apply: () => {},
  describe: (_payload, plan) => ({ what: plan.what === "order" ? "order taken" : "market day planned", figure: plan.name }),
  columns: (_payload, plan) => ({ what: `${plan.name}: ${plan.lines.map((line) => `${line.packs} × ${line.name}`).join(", ")}` }),
});
