import type { z } from "zod";
import { isAway } from "@/data/client";

/** What a command gives back: its value, or what is wrong, field by field. */
export type Outcome<T> = { ok: true; value: T } | { ok: false; message: string; fields: Record<string, string[]> };

export const done = <T>(value: T): Outcome<T> => ({ ok: true, value });
export const refused = (message: string, fields: Record<string, string[]> = {}): Outcome<never> => ({ ok: false, message, fields });

export const AWAY = "The database is away just now. Nothing you typed is lost: try again in a moment.";

/** Parses what came in, runs the command, and turns faults into something a maker can act on. */
export async function command<S extends z.ZodType, T>(schema: S, input: unknown, act: (value: z.output<S>) => Promise<Outcome<T>>): Promise<Outcome<T>> {
  const parsed = schema.safeParse(input);
  if (!parsed.success) {
    const fields: Record<string, string[]> = {};
    for (const issue of parsed.error.issues) {
      const path = issue.path.map(String).join(".");
      fields[path] = [...(fields[path] ?? []), issue.message];
    }
    return refused(parsed.error.issues[0]?.message ?? "Something here cannot be read.", fields);
  }
  try {
    return await act(parsed.data);
  } catch (error) {
    if (isAway(error)) return refused(AWAY);
    throw error;
  }
}
