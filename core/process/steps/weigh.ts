import { COMPONENT_KINDS } from "../../recipe/component";
import { type Prompt, stepType } from "../step-type";

/** Weighs the components of a pot, each on its own scale; dyes by drops or pieces are counted. */
export const weigh = stepType({
  kind: "weigh",
  verb: "weigh",
  params: ({ z }) =>
    z.object({
      /** Only these kinds of component; all if nothing is given. A pot may be divided: poured uncolored first, then dyed. */
      of: z.array(z.enum(COMPONENT_KINDS)).min(1).optional(),
    }),
  fields: [{ key: "of", label: "Only", is: "components", optional: true, hint: "Like wax, fragrance; empty for all." }],
  first: {},
  prompts: (step, plan) => {
    const pot = step.pot ?? 0;
    const parts = plan.pots[pot]?.components ?? [];
    return COMPONENT_KINDS.flatMap((kind) => parts.filter((part) => part.kind === kind && (!step.of || step.of.includes(kind)))).map(
      (part): Prompt => ({
        key: `weigh:${pot}:${part.id}`,
        step: step.id,
        kind: "weigh",
        pot,
        name: `${part.count ? "count" : "weigh"} ${part.name}`,
        entry: part.count ? "counted" : "weighed",
        component: part,
      }),
    );
  },
  why: "Tare first. One container for wax, another for fragrance. On a small scale weigh in parts: the parts add up here.",
  weighs: (step) => (step.of ? "some" : "all"),
  takes: (step, plan) => ({ minutes: 3 * (plan.pots[step.pot ?? 0]?.components.length ?? 1), needs: ["hands"] }),
});
