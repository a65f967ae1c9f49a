import { dropByOil } from "../../day/cooling";
import { COMPONENT_KINDS } from "../../recipe/component";
import { oneStep, stepType } from "../step-type";

/** Adds named components while the pot is inside a range. The reading is taken before they go in. */
export const add = stepType({
  kind: "add",
  verb: "add",
  params: ({ z, temperatureRange }) => z.object({ range: temperatureRange, of: z.array(z.enum(COMPONENT_KINDS)).min(1).optional() }),
  fields: [
    { key: "range", label: "Add at", is: "range" },
    { key: "of", label: "Adds", is: "components", optional: true, hint: "Empty: fragrance and dye." },
  ],
  first: { range: { low: 8_300, high: 8_700 } },
  prompts: (step, plan) => {
    const parts = (plan.pots[step.pot ?? 0]?.components ?? []).filter((part) => (step.of ?? ["fragrance", "dye"]).includes(part.kind));
    const kinds = [...new Set(parts.map((part) => part.kind))];
    return oneStep(step, kinds.length === 0 ? "reading before stirring" : `add ${kinds.join(" and ")}`, "read", { range: step.range });
  },
  why: "Read first, then add. Cool oil lowers the pot: {1–2 °C|2–4 °F} in a pot at {50–55 °C|120–130 °F}, more in a hot one. The supplier's data comes first. Without a thermometer, essential oils go in once the pitcher is no longer too hot to touch and the wax turns cloudy.",
  heat: { range: "add", after: (celsius) => celsius - dropByOil(celsius) },
  records: "add_c",
  joins: ["stir"],
  takes: () => ({ minutes: 2, needs: ["hands", "pitcher"] }),
});
