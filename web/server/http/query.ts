import { z } from "zod";

/** The place where a page of batches begins or ends, and the days that it is of, as an address has them. */
export const CURSOR_QUERY = { after: z.string().max(120), before: z.string().max(120), when: z.string().max(60) };
/** The same for lists that are ordered by number. */
export const NUMBER_QUERY = { after: z.coerce.number().int().positive(), before: z.coerce.number().int().positive(), when: z.string().max(60) };

type Query = Promise<Record<string, string | string[] | undefined>>;

/** Returns what a list's address asks for; what cannot be meant is as if it were not there. */
export async function parseQuery<S extends z.ZodRawShape>(query: Query, shape: S) {
  const raw = await query;
  const out: Record<string, unknown> = {};
  for (const [key, schema] of Object.entries({ q: z.string().max(100), page: z.coerce.number().int().min(1).max(100_000), ...shape })) {
    const parsed = (schema as z.ZodType).safeParse([raw[key]].flat()[0]);
    if (parsed.success) out[key] = parsed.data;
  }
  return out as { q?: string; page?: number } & { [K in keyof S]?: z.output<S[K]> };
}
