import { z } from "zod";
import { type DiagnosisRecord, keyOf, RECORD_KEY_NAMES, type RecordKey } from "./record";

const schemaOf = ({ kind, least, most, words, unit }: RecordKey): z.ZodType =>
  kind === "yes-no"
    ? z.boolean({ error: "Say true or false." }).describe(words)
    : z
        .number()
        .min(least ?? 0)
        .max(most ?? 0)
        .describe(`${words}, in ${unit}`);

const shape = Object.fromEntries(RECORD_KEY_NAMES.map((name) => [name, schemaOf(keyOf(name)).optional()]));
/** What was recorded; every key may be left out, and then nothing is concluded from it. What is not known here is passed over. */
export const diagnosisRecord = z.object({
  ...shape,
  halves: z
    .union([z.boolean(), z.number().int().min(1).max(20)])
    .optional()
    .describe("poured in two goes or more; or in how many"),
  max_load_percent: z.number().min(0).max(100).optional().describe("the most that wax and oil allow, in percent of the wax"),
  asked_load_percent: z.number().min(0).max(100).optional().describe("the load that was asked for, in percent of the wax"),
  instrument: z.string().max(60).optional().describe("what the temperatures were read with"),
}) as unknown as z.ZodType<DiagnosisRecord, DiagnosisRecord>;
