import { z } from "zod";
import { process } from "../process/schema";
import { plannedProduct } from "../product/schema";
import { component } from "../recipe/component-schema";
import { recipe } from "../recipe/schema";
import { HOTTEST } from "../units/temperature";
import { upcastPlan } from "./upcast";

const mg = z.number().int().min(0);

const pitcher = z.object({ totalMg: mg, components: z.array(z.object({ id: z.uuid(), mg, n: mg.optional() })) });

/** One pot of a batch: its formula as it was at the start, and its amounts. */
export const potPlan = z.object({
  formulaName: z.string(),
  /** Absent in batches of earlier versions. */
  formulaId: z.uuid().optional(),
  versionNumber: z.number().int().min(1),
  recipe,
  waxFamily: z.string(),
  /** The smallest of what waxes and fragrances allow, in millionths of the wax. */
  maxLoadPpm: z.number().int().positive().nullable(),
  totalMg: mg,
  /** What is weighed for it; of the rest of another pot only what is added to that. */
  components: z.array(component).min(1),
  /** The pot whose rest it is, and what of it was planned to be left, in mg. */
  restOf: z.number().int().min(0).max(6).optional(),
  baseMg: mg.optional(),
  sparePpm: z.number().int().min(0),
  /** What stays in the pitchers, beside the spare. */
  spareMg: mg.optional(),
  /** The most one pitcher holds, and what goes into each, where the pot is split over several. */
  pitcherMg: mg.optional(),
  pitchers: z.array(pitcher).optional(),
});

export type PotPlan = z.output<typeof potPlan>;

/** Everything a batch was started with, frozen: later edits on the shelf or in the formula do not reach it. */
export const batchPlan = z.object({
  format: z.literal(3),
  process,
  pots: z.array(potPlan).min(1).max(8),
  products: z.array(plannedProduct).min(1).max(200),
  /** Run against a simulated bench: no wax is touched, and nothing of it counts. */
  rehearsal: z.literal(true).optional(),
  /** Brought in from a notebook: nothing counts but what its entries say. */
  fromNotes: z.literal(true).optional(),
});

export type BatchPlan = z.output<typeof batchPlan>;

/** Reads a plan of any format. @throws z.ZodError where it cannot be read. */
export const readPlan = (raw: unknown): BatchPlan => batchPlan.parse(upcastPlan(raw));

/** Stands in a plan for the process and the pots that cannot be read, so that its batch can be shown. */
const UNREADABLE_PROCESS: BatchPlan["process"] = { name: "Cannot be read", reason: "", ceiling: HOTTEST, steps: [] };
const UNREADABLE_POT: BatchPlan["pots"][number] = {
  formulaName: "A batch that cannot be read",
  versionNumber: 1,
  recipe: { waxes: [], fragrances: [], basis: "wax", loadPpm: 0, notes: "" },
  waxFamily: "",
  maxLoadPpm: null,
  totalMg: 0,
  components: [],
  sparePpm: 0,
};

/**
 * Returns a stored plan as far as it can be read: where it cannot be read whole, `unreadable` says why, parts that cannot be read are left out, and what has to be
 * there is stood in for. Such a plan is for showing; nothing may be added to its batch.
 */
export function readableOf(raw: unknown): { plan: BatchPlan; unreadable: string | null } {
  let stored: unknown;
  try {
    stored = upcastPlan(raw);
  } catch {
    stored = null;
  }
  const whole = batchPlan.safeParse(stored);
  if (whole.success) return { plan: whole.data, unreadable: null };
  const parts = z.object({ process: z.unknown(), pots: z.array(z.unknown()).catch([]), products: z.array(z.unknown()).catch([]) }).safeParse(stored).data;
  const readable = <T>(of: z.ZodType<T>, all: readonly unknown[] = []): T[] =>
    all.flatMap((item) => {
      const read = of.safeParse(item);
      return read.success ? [read.data] : [];
    });
  const pots = readable(potPlan, parts?.pots);
  const [issue] = whole.error.issues;
  return {
    plan: {
      format: 3,
      process: process.safeParse(parts?.process).data ?? UNREADABLE_PROCESS,
      pots: pots.length > 0 ? pots : [UNREADABLE_POT],
      products: readable(plannedProduct, parts?.products),
    },
    unreadable: [issue?.path.join("."), issue?.message].filter(Boolean).join(": ") || "It is damaged.",
  };
}
