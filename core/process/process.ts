import { z } from "zod";
import type { BatchPlan } from "../batch/plan";
import type { TemperatureRange } from "../heat/range";
import { HOTTEST } from "../units/temperature";
import { ACTS, type ActName, actKindOf } from "./acts";
import { type ActHead, actHead, type Step } from "./kind";

const schemas = ACTS.map((one) => one.params.extend({ ...actHead, kind: z.literal(one.kind) }));
type OneAct<T> = T extends { kind: infer K extends string; params: z.ZodType<infer P> }
  ? ActHead & { kind: K } & ([P] extends [Record<string, never>] ? unknown : P)
  : never;
export type Act = OneAct<(typeof ACTS)[number]>;
/** One act with its parameters. Temperatures in hundredths of °C, times in seconds, shares in millionths. */
export const act = z.discriminatedUnion("kind", schemas as never) as unknown as z.ZodType<Act>;
export type ActCalled<K extends ActName> = Extract<Act, { kind: K }>;

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
export type Process = z.output<typeof process>;

/** How many pots a process works. */
export const potsOf = (acts: readonly { pot?: number | undefined }[]): number => acts.reduce((most, one) => Math.max(most, (one.pot ?? 0) + 1), 1);

export type Pouring = ActCalled<"pour"> | ActCalled<"pour-again">;
export const poursOf = (acts: readonly Act[]): Pouring[] => acts.filter((one): one is Pouring => one.kind === "pour" || one.kind === "pour-again");

const firstOf = <K extends ActName>(acts: readonly Act[], kind: K): ActCalled<K> | null =>
  (acts.find((one) => one.kind === kind) as ActCalled<K> | undefined) ?? null;

/** The times after the last pour, in seconds; nothing where a process does not say. */
export function timesOf(of: Pick<Process, "acts">): { set: number; leastCure: number; recommendedCure: number } {
  const cure = firstOf(of.acts, "cure");
  return { set: firstOf(of.acts, "set")?.seconds ?? 0, leastCure: cure?.least ?? 0, recommendedCure: cure?.recommended ?? 0 };
}

/** One range of a process, as it is drawn and spoken of: "heat", "add", "pour". */
export interface Band {
  act: string;
  name: string;
  range: TemperatureRange;
}

export const RANGE_NAMES = { heat: "heat", add: "add", cool: "pour", "pour-again": "second pour" } as const;

/** Every range of a process in its order. */
export const bandsOf = (of: Pick<Process, "acts">): Band[] =>
  of.acts.flatMap((one): Band[] =>
    "range" in one && one.range ? [{ act: one.id, name: RANGE_NAMES[one.kind as keyof typeof RANGE_NAMES] ?? one.kind, range: one.range }] : [],
  );

/** The steps of a batch, in order: what each act of its process asks for. */
export const stepsOf = (plan: BatchPlan): Step[] => plan.process.acts.flatMap((one) => actKindOf(one.kind).steps(one as never, plan));
