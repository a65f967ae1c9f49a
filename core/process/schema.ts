import { z } from "zod";
import { HOTTEST } from "../units/temperature";
import { ACTS } from "./acts";
import { type Act, potsOf, poursOf } from "./process";
import { actHead, SHAPES } from "./shapes";

const schemas = ACTS.map((one) => one.params(SHAPES).extend({ ...actHead, kind: z.literal(one.kind) }));
/** One act with its parameters. Temperatures in hundredths of °C, times in seconds, shares in millionths. */
export const act = z.discriminatedUnion("kind", schemas as never) as unknown as z.ZodType<Act>;

/** How a wax is worked: a list of acts in order, under a ceiling. All temperatures are wax temperatures. */
export const process = z
  .object({
    name: z.string().trim().min(1, "Give the process a name.").max(120),
    reason: z.string().max(600).default(""),
    /** Kept above this for long, the wax scorches. */
    ceiling: z.number().int().max(HOTTEST),
    acts: z.array(act).min(1, "A process has at least one act.").max(80, "At most 80 acts."),
    /** The process of the workshop that it was taken from, and its version. */
    from: z.object({ id: z.uuid(), number: z.number().int().min(1) }).optional(),
  })
  .superRefine((value, context) => {
    const say = (message: string, path: (string | number)[] = ["acts"]) => context.addIssue({ code: "custom", path, message });
    const ids = new Set<string>();
    for (const [index, one] of value.acts.entries()) {
      if (ids.has(one.id)) say(`Two acts are called “${one.id}”.`, ["acts", index, "id"]);
      ids.add(one.id);
      if (one.kind === "cure" && one.least > one.recommended)
        say("The recommended cure cannot be shorter than the minimum cure.", ["acts", index, "recommended"]);
      if (one.kind === "wait" && one.most !== undefined && one.most < one.least)
        say("The longest wait cannot be shorter than the least.", ["acts", index, "most"]);
    }
    if (!value.acts.some((one) => one.kind === "pour")) say("A process pours at least once.");
    for (let pot = 0; pot < potsOf(value.acts); pot++) {
      if (!value.acts.some((one) => one.kind === "weigh" && (one.pot ?? 0) === pot)) say(`Pot ${pot + 1} is never weighed.`);
    }
    const shares = poursOf(value.acts).reduce((sum, one) => sum + one.share, 0);
    const perProduct = value.acts.some((one) => one.kind === "pour" && one.product !== undefined);
    if (!perProduct && value.acts.some((one) => one.kind === "pour") && Math.abs(shares - 1_000_000) > 1_000)
      say(`The pours come to ${Math.round(shares / 1_000) / 10} % of the fill: together they must be 100 %.`);
  });
