import { COMPONENT_KINDS } from "../../recipe/component";
import { actKind, oneStep } from "../kind";

/** Adds named components while the pot is inside a range. The reading is taken before they go in. */
export const add = actKind({
  kind: "add",
  verb: "add",
  params: ({ z, temperatureRange }) => z.object({ range: temperatureRange, of: z.array(z.enum(COMPONENT_KINDS)).min(1).optional() }),
  fields: [
    { key: "range", label: "Add at", is: "range" },
    { key: "of", label: "Adds", is: "components", optional: true, hint: "Empty: fragrance and dye." },
  ],
  first: { range: { low: 8_300, high: 8_700 } },
  steps: (act, plan) => {
    const parts = (plan.pots[act.pot ?? 0]?.components ?? []).filter((part) => (act.of ?? ["fragrance", "dye"]).includes(part.kind));
    const kinds = [...new Set(parts.map((part) => part.kind))];
    return oneStep(act, kinds.length === 0 ? "reading before stirring" : `add ${kinds.join(" and ")}`, "read", { range: act.range });
  },
  why: "Read first, then add. Cool oil lowers the pot: 1–2 °C in a pot at 50–55 °C, more in a hot one. The supplier's sheet comes first. Without a thermometer, essential oils go in once the pitcher is no longer too hot to touch and the wax turns cloudy.",
  takes: () => ({ minutes: 2, needs: ["hands", "pitcher"] }),
});
