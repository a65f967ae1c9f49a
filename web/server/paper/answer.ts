import { z } from "zod";
import { errorResponse } from "@/server/http/respond";
import { environmentSetting } from "@/server/operation/environment";
import { paperInThread } from "./draw";
import type { PaperSize } from "./paper";
import { type Capacities, MAX_TAGS, type PaperUnits, type SheetOf, tagsOf } from "./sheets";

const asked = z.object({
  size: z.enum(["a4", "letter"], { error: "Ask for size a4 or letter." }).optional(),
  what: z.enum(["sheets", "tags"], { error: "Ask for sheets or tags." }).default("sheets"),
  /** Of many tags the first that is drawn, counted from 1. */
  from: z.coerce.number().int().min(1).max(10_000_000).optional(),
});

/** Returns where US paper lies in the printer. */
const usualSize = (locale: string): PaperSize => (["en-US", "en-CA"].includes(locale) ? "letter" : "a4");

/** Returns the size of paper that an address asks for, or the usual one there; null where it asks for another. */
export function paperSizeAsked(request: Request, locale: string): PaperSize | null {
  const read = asked.shape.size.safeParse(new URL(request.url).searchParams.get("size") ?? undefined);
  return read.success ? (read.data ?? usualSize(locale)) : null;
}

/** Returns a PDF as an answer. */
export const pdfResponse = (pdf: Uint8Array, name: string): Response =>
  new Response(new Uint8Array(pdf), {
    headers: { "content-type": "application/pdf", "content-disposition": `inline; filename="${name}.pdf"`, "cache-control": "no-store" },
  });

/** Paper as an answer: sheets, or tags where they are asked for, in the size asked for or usual there. */
export async function paperAnswer(request: Request, sheets: SheetOf[], units: PaperUnits, capacities: Capacities, name: string): Promise<Response> {
  const read = asked.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (!read.success) return errorResponse(400, read.error.issues[0]?.message ?? "This cannot be read.");
  const { what, from } = read.data;
  const size = read.data.size ?? usualSize(units.locale);
  const of = { sheets, size, units: { massUnit: units.massUnit, temperatureUnit: units.temperatureUnit, locale: units.locale } };
  const tags = tagsOf(sheets);
  if (what === "tags" && tags > MAX_TAGS && from === undefined)
    return errorResponse(
      400,
      `These are ${tags} tags. At most ${MAX_TAGS} are drawn at a time: add from=1 to this address for the first of them, from=${MAX_TAGS + 1} for the next.`,
    );
  const pdf = await paperInThread(what === "tags" ? { what, ...of, from: (from ?? 1) - 1, count: MAX_TAGS } : { what, ...of, capacities }, request.signal);
  return pdf ? pdfResponse(pdf, `${name}-${what}`) : errorResponse(500, "This could not be drawn.");
}

/** The address that this program is reached at, as the browser names it. */
export const originOf = (request: Request): string =>
  environmentSetting("HEARTH_PUBLIC_URL") ?? `http://${request.headers.get("host") ?? new URL(request.url).host}`;

/** Returns the address before the pages of one workshop. */
export const workshopAddress = (request: Request, workshopId: string): string => `${originOf(request)}/w/${workshopId}`;
