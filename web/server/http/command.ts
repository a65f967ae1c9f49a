import { type Area, may, type Need, oddTextIn, ok, type Problem, type Result, reject, topicsOfCommand, WeighOutError } from "@hearth/core";
import { revalidatePath } from "next/cache";
import { headers } from "next/headers";
import { z } from "zod";
import { isUnavailable } from "@/data/client";
import { authorize, FORBIDDEN } from "@/server/auth/authorize";
import { inTransaction } from "@/server/shared/transaction";
import { type Change, notifyPages } from "./change-stream";
import { type CommandContext, commandContext } from "./context";
import { unavailableMessage } from "./database-unavailable";

/** The workshop that the page shows, and who works at it: named in all that a page sends. */
export const pageRef = z.object({ workshopId: z.uuid(), personId: z.uuid().nullable() });

/** Something of that name is there already: PostgreSQL's code for a unique key that is taken. */
export function isNameTaken(error: unknown): boolean {
  for (let at: unknown = error; at; at = (at as { cause?: unknown }).cause) {
    const { code, constraint } = at as { code?: string; constraint?: string };
    if (code === "23505" && constraint?.endsWith("_name")) return true;
  }
  return false;
}

const faultsOf = (error: z.ZodError): Problem => {
  const fields: Record<string, string[]> = {};
  for (const issue of error.issues) {
    const path = issue.path.map(String).join(".");
    fields[path] = [...(fields[path] ?? []), issue.message];
  }
  return reject(error.issues[0]?.message ?? "Something here cannot be read.", fields);
};

/** Returns what came in, as the schema has it; text with signs that cannot be kept is refused. */
function read<S extends z.ZodType>(schema: S, input: unknown): Result<z.output<S>> {
  const odd = oddTextIn(input);
  if (odd) return reject("A text here holds a sign that cannot be kept. Type it anew.", { [odd]: ["This holds a sign that cannot be kept. Type it anew."] });
  const parsed = schema.safeParse(input);
  return parsed.success ? ok(parsed.data) : faultsOf(parsed.error);
}

/** What whoever is in a workshop at all may do. */
const EVERYBODY: Need = { area: "bench", action: "see" };

/**
 * Parses what came in, asks whether who sent it may do so in that part of the program, and runs the command in the workshop that the page names, in one
 * transaction: what is refused leaves nothing behind, and what changes something is told to all pages of the workshop. Faults become something a
 * maker can step on.
 */
export async function command<S extends z.ZodType, T>(
  area: Area | ((value: z.output<S>) => Area),
  schema: S,
  from: unknown,
  input: unknown,
  does: (value: z.output<S>, context: CommandContext) => Promise<Result<T>>,
  action: Need["action"] = "change",
): Promise<Result<T>> {
  const at = pageRef.safeParse(from);
  if (!at.success) return reject("This page does not say which workshop it shows. Load it again; nothing you typed is lost.");
  try {
    // Who may not do it at all learns nothing of what is wrong with what was sent.
    const first = await authorize(await headers(), at.data.workshopId, typeof area === "string" ? { area, action } : EVERYBODY);
    if (!first.ok) return reject(first.message);
    const parsed = read(schema, input);
    if (!parsed.ok) return parsed;
    if (typeof area !== "string" && !may(first.value.role, { area: area(parsed.value), action })) return reject(FORBIDDEN);
    const context = await commandContext(at.data, first.value);
    if (!context) return reject("This workshop is not here any more. Choose another.");
    const outcome = await inTransaction(context.db, async (tx) => {
      let more: Partial<Change> = {};
      const tell = (change: Partial<Change>) => {
        const both = [...(more.topics ?? []), ...(change.topics ?? [])];
        more = { ...more, ...change, ...(both.length > 0 ? { topics: both } : {}) };
      };
      const given = await does(parsed.value, { ...context, db: tx, notify: tell });
      const topics = topicsOfCommand(typeof area === "string" ? area : area(parsed.value));
      if (given.ok && action === "change") await notifyPages(tx, { workshop: context.workshop.id, ...(topics ? { topics } : {}), ...more });
      return given;
    });
    if (outcome.ok && action === "change") revalidatePath("/", "layout");
    return outcome;
  } catch (error) {
    if (isUnavailable(error)) return reject(unavailableMessage(error));
    if (error instanceof WeighOutError) return reject(error.message, { [error.field]: [error.message] });
    if (isNameTaken(error)) {
      const why = "There is one of this name already, whatever its capitals. Choose another name.";
      return reject(why, { name: [why], "values.name": [why] });
    }
    throw error;
  }
}

/** Returns a command that belongs to no workshop, like making one. */
export async function freeCommand<S extends z.ZodType, T>(schema: S, input: unknown, run: (value: z.output<S>) => Promise<Result<T>>): Promise<Result<T>> {
  const parsed = read(schema, input);
  if (!parsed.ok) return parsed;
  try {
    return await run(parsed.value);
  } catch (error) {
    if (isUnavailable(error)) return reject(unavailableMessage(error));
    throw error;
  }
}
