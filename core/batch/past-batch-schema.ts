import { z } from "zod";
import { flaw } from "../defects/schema";
import { WARMED } from "./state";

const stamp = z.iso.datetime();

/** What a maker noted of a batch that is already made, apart from what its plan says. The entries it becomes are checked by their own schemas. */
export const pastBatch = z.object({
  /** Only the steps that were noted, in the order of the process. */
  steps: z
    .array(
      z.object({
        /** The key of the prompt. */
        prompt: z.string(),
        /** When it was done; null if that was not noted. */
        at: stamp.nullable(),
        /** Milligrams, drops, hundredths of °C or seconds, as the prompt asks for; null where it asks for none. */
        value: z.number().int().nullable(),
      }),
    )
    .max(400),
  /** How many of each product were filled, by its key. */
  filled: z.array(z.object({ product: z.string(), count: z.number().int() })).max(200),
  thermometerId: z.uuid().nullable(),
  leftMg: z.number().int().nullable(),
  roomCelsius: z.number().int().nullable(),
  warmed: z.enum(WARMED).nullable(),
  /** Null if it was not inspected, or nobody noted what was seen. */
  inspection: z.object({ at: stamp.nullable(), flaws: z.array(flaw).max(60) }).nullable(),
  remark: z.string().trim(),
});
export type PastBatch = z.output<typeof pastBatch>;
