import { type Area, may, type Need, oddTextIn, topicsOfCommand } from "@hearth/core";
import { revalidatePath } from "next/cache";
import { headers } from "next/headers";
import { z } from "zod";
import { isAway } from "@/data/client";
import { awayWords } from "./away";
import { type CommandContext, within } from "./context";
import { enter, NOT_YOURS } from "./door/door";
import { tellPages } from "./live";
import { done, inTransaction, type Outcome, refused } from "./result";

export { done, type Outcome, refused };

/** The workshop that the page shows, and who works at it: named in all that a page sends. */
export const place = z.object({ workshopId: z.uuid(), personId: z.uuid().nullable() });

/** Something of that name is there already: PostgreSQL's code for a unique key that is taken. */
export function takenName(error: unknown): boolean {
  for (let at: unknown = error; at; at = (at as { cause?: unknown }).cause) {
    const { code, constraint } = at as { code?: string; constraint?: string };
    if (code === "23505" && constraint?.endsWith("_name")) return true;
  }
  return false;
}

const faultsOf = (error: z.ZodError): Outcome<never> => {
  const fields: Record<string, string[]> = {};
  for (const issue of error.issues) {
    const path = issue.path.map(String).join(".");
    fields[path] = [...(fields[path] ?? []), issue.message];
  }
  return refused(error.issues[0]?.message ?? "Something here cannot be read.", fields);
};

/** What came in, as the schema has it; text with signs that cannot be kept is refused. */
function read<S extends z.ZodType>(schema: S, input: unknown): Outcome<z.output<S>> {
  const odd = oddTextIn(input);
  if (odd) return refused("A text here holds a sign that cannot be kept. Type it anew.", { [odd]: ["This holds a sign that cannot be kept. Type it anew."] });
  const parsed = schema.safeParse(input);
  return parsed.success ? done(parsed.data) : faultsOf(parsed.error);
}

/** What whoever is in a workshop at all may do. */
const EVERYBODY: Need = { area: "bench", act: "see" };

/**
 * Parses what came in, asks whether who sent it may do so in that part of the program, and runs the command in the workshop that the page names, in one
 * transaction: what is refused leaves nothing behind, and what changes something is told to all pages of the workshop. Faults become something a
 * maker can act on.
 */
export async function command<S extends z.ZodType, T>(
  area: Area | ((value: z.output<S>) => Area),
  schema: S,
  from: unknown,
  input: unknown,
  does: (value: z.output<S>, context: CommandContext) => Promise<Outcome<T>>,
  act: Need["act"] = "change",
): Promise<Outcome<T>> {
  const at = place.safeParse(from);
  if (!at.success) return refused("This page does not say which workshop it shows. Load it again; nothing you typed is lost.");
  try {
    // Who may not do it at all learns nothing of what is wrong with what was sent.
    const first = await enter(await headers(), at.data.workshopId, typeof area === "string" ? { area, act } : EVERYBODY);
    if (!first.ok) return refused(first.message);
    const parsed = read(schema, input);
    if (!parsed.ok) return parsed;
    if (typeof area !== "string" && !may(first.value.role, { area: area(parsed.value), act })) return refused(NOT_YOURS);
    const context = await within(at.data, first.value);
    if (!context) return refused("This workshop is not here any more. Choose another.");
    const outcome = await inTransaction(context.db, async (tx) => {
      const given = await does(parsed.value, { ...context, db: tx });
      const topics = topicsOfCommand(typeof area === "string" ? area : area(parsed.value));
      if (given.ok && act === "change") await tellPages(tx, { workshop: context.workshop.id, ...(topics ? { topics } : {}) });
      return given;
    });
    if (outcome.ok && act === "change") revalidatePath("/", "layout");
    return outcome;
  } catch (error) {
    if (isAway(error)) return refused(awayWords(error));
    if (takenName(error)) {
      const why = "There is one of this name already, whatever its capitals. Choose another name.";
      return refused(why, { name: [why], "values.name": [why] });
    }
    throw error;
  }
}

/** A command that belongs to no workshop, like making one. */
export async function freeCommand<S extends z.ZodType, T>(schema: S, input: unknown, act: (value: z.output<S>) => Promise<Outcome<T>>): Promise<Outcome<T>> {
  const parsed = read(schema, input);
  if (!parsed.ok) return parsed;
  try {
    return await act(parsed.value);
  } catch (error) {
    if (isAway(error)) return refused(awayWords(error));
    throw error;
  }
}
