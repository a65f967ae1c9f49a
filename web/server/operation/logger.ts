import pino, { type Logger } from "pino";
import { causesOf } from "@/data/causes";
import { processSingleton } from "@/data/process-singleton";

/** The part of an error that may be logged: never a statement's values, so no note and no name. */
export interface Fault {
  name: string;
  code?: string;
  constraint?: string;
  table?: string;
  message?: string;
  digest?: string;
  at?: string[];
}

const FRAMES = 8;

/** An error without anything that somebody typed: what the database says stands only by its code. */
export function faultOf(error: unknown): Fault {
  if (!(error instanceof Error)) return { name: typeof error };
  const fault: Fault = { name: error.name };
  for (const at of causesOf(error)) {
    const { code, constraint, table, digest, severity } = at as Record<string, string | undefined>;
    if (code && !fault.code) fault.code = code;
    if (constraint) fault.constraint = constraint;
    if (table) fault.table = table;
    if (digest) fault.digest = digest;
    // The innermost error says why; one that the database or the query builder made repeats what was typed.
    const repeatsValues = severity || at.name === "DrizzleQueryError" || "query" in at;
    if (repeatsValues) delete fault.message;
    else fault.message = String(at.message ?? "").slice(0, 300);
  }
  const frames = (error.stack ?? "").split("\n").filter((line) => /^\s+at /.test(line));
  if (frames.length > 0) fault.at = frames.slice(0, FRAMES).map((line) => line.trim().slice(3));
  return fault;
}

/** Returns the server's log: one JSON object a line, on standard error. HEARTH_LOG sets the level: debug, info, warn, error, silent. */
export const logger = (): Logger =>
  processSingleton("logger", () =>
    pino(
      { level: process.env.HEARTH_LOG ?? "info", base: null, timestamp: pino.stdTimeFunctions.isoTime, formatters: { level: (level) => ({ level }) } },
      pino.destination({ fd: 2, sync: true }),
    ),
  );

/** What a library writes to the console goes into the log instead, by the same rule. */
export function takeConsole(): void {
  const write =
    (level: "error" | "warn" | "info") =>
    (...said: unknown[]) => {
      const error = said.find((item) => item instanceof Error);
      const text = said.filter((item): item is string => typeof item === "string").map((text) => (text.split("\n")[0] ?? "").slice(0, 200));
      // A line that tells of an error repeats its message, which may hold what was typed.
      if (error) logger()[level]({ fault: faultOf(error) }, "a fault");
      else logger()[level](text.join(" ").replace(/Failed query:.*/, "a query failed"));
    };
  console.error = write("error");
  console.warn = write("warn");
  console.info = write("info");
}
