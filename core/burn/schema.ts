import { z } from "zod";
import { productWicks } from "../product/schema";
import { sessionFault } from "./session-fault";
import { upcastTrialPlan } from "./upcast";
import { VARIED } from "./varied";

const minutes = z.number().int();
export const protocolSession = z
  .object({
    checks: z.array(minutes),
    /** When it is put out, in minutes after lighting. */
    minutes,
  })
  .superRefine((session, context) => {
    const fault = sessionFault(session);
    if (fault) context.addIssue({ code: "custom", path: ["checks"], message: fault });
  });
export type ProtocolSession = z.output<typeof protocolSession>;

/** How candles are burned: sessions with their looks, the rest between, and how far it goes. */
export const protocol = z.object({
  name: z.string().trim().min(1, "Enter a name.").max(80),
  sessions: z.array(protocolSession).min(1, "At least one session.").max(20),
  restHours: z.number().min(0, "The rest cannot be negative.").max(336, "The rest is at most two weeks."),
  /** No verdict stands on fewer. */
  least: z.number().int().min(1).max(20),
  /** After the last session that is written down, that one again and again, to the end of the wax. */
  toEnd: z.boolean(),
});
export type Protocol = z.output<typeof protocol>;

/** Names one test candle of a trial. */
export const testCandleKey = z.string().min(1).max(12).describe("its key within the trial");

const um = z.number().int().positive();
/** One candle that is burned, frozen as it was made. */
export const testCandle = z.object({
  /** Names it within the trial: the variant's letter and a number, "A1". */
  key: z.string().min(1).max(12),
  variant: z.string().min(1).max(6),
  /** What stands on it where scorers must not know. */
  code: z.string().min(1).max(6),
  fill: z.enum(["full", "half"]),
  container: z.enum(["vessel", "mold"]),
  containerId: z.uuid(),
  vessel: z.string(),
  innerTopUm: um,
  innerBottomUm: um,
  heightUm: um,
  shape: z.enum(["straight", "bowl"]).optional(),
  /** Wax, oil and the rest that went in. */
  fillMg: um,
  wick: productWicks.nullable(),
  family: z.string(),
  wax: z.string(),
  scent: z.string(),
  /** Millionths of the wax. */
  loadPpm: z.number().min(0),
  dyed: z.boolean(),
  /** What of a ladder it is a step of: the share of a second wax or of an additive in percent, or drops of a dye to a pound. */
  dose: z.object({ name: z.string().max(300), amount: z.number().min(0) }).optional(),
  added: z.array(z.string()).max(40).describe("additives and embeds"),
  formula: z.string().max(300),
  batch: z
    .object({
      id: z.uuid(),
      number: z.number().int().positive(),
      product: z.string(),
      /** It stood on the rack already, and was logged as a test candle when the trial began; else when it is first lit. */
      taken: z.boolean(),
    })
    .nullable(),
  productId: z.uuid().nullable(),
});

export type TestCandle = z.output<typeof testCandle>;

/** Everything a trial was begun with, frozen. */
export const trialPlan = z.object({
  format: z.literal(2),
  name: z.string().trim().min(1, "Enter a name for the trial.").max(120),
  /** Null for candles that are only to be tested, none against another. */
  varies: z.enum(VARIED).nullable(),
  protocol,
  testCandles: z.array(testCandle).min(1, "A trial has at least one test candle.").max(40, "At most 40 test candles in one trial."),
  /** What the workshop looks at beside the built-in checks, each scored from 0 to 10: crackle, drips, brightness. */
  ownMarks: z.array(z.string().trim().min(1).max(40)).max(8).optional(),
  /** The trial that this one follows, and what was found there. */
  after: z.object({ id: z.uuid(), name: z.string(), why: z.string() }).optional(),
  /** Brought in from a notebook: nothing counts but what its entries say. */
  fromNotes: z.literal(true).optional(),
});
export type TrialPlan = z.output<typeof trialPlan>;

/** Returns the plan of a trial of any format. @throws z.ZodError if it cannot be read. */
export const readTrialPlan = (raw: unknown): TrialPlan => trialPlan.parse(upcastTrialPlan(raw));
