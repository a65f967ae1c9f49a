import { COMPONENT_KINDS } from "../../recipe/component";
import { actKind, type Step } from "../kind";

/** Weighs the components of a pot, each on its own scale; dyes by drops or pieces are counted. */
export const weigh = actKind({
  kind: "weigh",
  verb: "weigh",
  params: ({ z }) =>
    z.object({
      /** Only these kinds of component; all where nothing is said. A pot may be divided: poured uncoloured first, then dyed. */
      of: z.array(z.enum(COMPONENT_KINDS)).min(1).optional(),
    }),
  fields: [{ key: "of", label: "Only", is: "components", optional: true, hint: "Like wax, fragrance; empty for all." }],
  first: {},
  steps: (act, plan) => {
    const pot = act.pot ?? 0;
    const parts = plan.pots[pot]?.components ?? [];
    return COMPONENT_KINDS.flatMap((kind) => parts.filter((part) => part.kind === kind && (!act.of || act.of.includes(kind)))).map(
      (part): Step => ({
        key: `weigh:${pot}:${part.id}`,
        act: act.id,
        kind: "weigh",
        pot,
        name: `${part.count ? "count" : "weigh"} ${part.name}`,
        entry: part.count ? "counted" : "weighed",
        component: part,
      }),
    );
  },
  why: "Tare first. One container for wax, another for fragrance. On a small scale weigh in parts: the parts add up here.",
  takes: (act, plan) => ({ minutes: 3 * (plan.pots[act.pot ?? 0]?.components.length ?? 1), needs: ["hands"] }),
});
