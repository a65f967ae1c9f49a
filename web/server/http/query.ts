import { z } from "zod";

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
