import { oneStep, stepType } from "../step-type";

/** Takes what is left of another pot as a pot of its own: it is dyed, scented or loaded further, and the doses follow what is left. */
export const split = stepType({
  kind: "split",
  verb: "take the rest",
  params: ({ z }) => z.object({ from: z.number().int().min(0).max(6).describe("the pot whose rest it is, counted from 0") }),
  fields: [{ key: "from", label: "The rest of pot", is: "pot" }],
  first: { from: 0 },
  prompts: (step) => oneStep(step, `take the rest of pot ${step.from + 1}`, "split"),
  why: "Weigh what is left, if you can: everything that goes in next is dosed for it. Where it is not weighed, it is what the pot held less what was poured.",
  restOf: (step) => step.from,
  fault: (step) => ((step.pot ?? 0) <= step.from ? { at: "from", says: "A pot can only be the rest of an earlier one." } : null),
  takes: () => ({ minutes: 2, needs: ["hands", "pitcher"] }),
});
