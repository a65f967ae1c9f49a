import { oneStep, piecesOf, stepType } from "../step-type";

/** Lays in what is shown in a clear candle. Nothing that burns. */
export const embed = stepType({
  kind: "embed",
  verb: "lay in",
  params: ({ z }) => z.object({ what: z.string().trim().min(1, "Say what is laid in.").max(120), each: z.number().int().min(1).max(200).default(1) }),
  fields: [
    { key: "what", label: "Lay in", is: "words" },
    { key: "each", label: "for each", is: "count" },
  ],
  first: { what: "glass pebbles", each: 3 },
  prompts: (step) => oneStep(step, `lay in ${step.what}`, "stepDone", step.each > 1 ? { figure: `${step.each} each` } : {}),
  why: "Away from the wick. Temporary strings are drawn out before the gel sets.",
  caution: "What is laid in must not burn: no paper, plants, wood or plastic.",
  records: "mica",
  laysIn: true,
  takes: (_act, plan) => ({ minutes: piecesOf(plan), needs: ["hands", "table"] }),
});
