import { z } from "zod";
import type { PaperSize } from "./paper";
import { batchSheets, type Capacities, jarTags, type PaperUnits, type SheetOf } from "./sheets";

const asked = z.object({ size: z.enum(["a4", "letter"]).optional(), what: z.enum(["sheets", "tags"]).default("sheets") });

/** Where US paper lies in the printer. */
const usualSize = (locale: string): PaperSize => (["en-US", "en-CA"].includes(locale) ? "letter" : "a4");

/** Paper as an answer: sheets, or tags where they are asked for, in the size asked for or usual there. Null where the question cannot be read. */
export async function paperAnswer(request: Request, sheets: SheetOf[], units: PaperUnits, capacities: Capacities, name: string): Promise<Response | null> {
  const read = asked.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (!read.success) return null;
  const size = read.data.size ?? usualSize(units.locale);
  const body = read.data.what === "tags" ? await jarTags(sheets, size, units) : await batchSheets(sheets, size, units, capacities);
  return new Response(new Uint8Array(body), {
    headers: { "content-type": "application/pdf", "content-disposition": `inline; filename="${name}-${read.data.what}.pdf"`, "cache-control": "no-store" },
  });
}

/** The address that this program is reached at, as the browser names it. */
export const originOf = (request: Request): string => process.env.HEARTH_ORIGIN ?? `http://${request.headers.get("host") ?? new URL(request.url).host}`;

/** The address before the pages of one workshop. */
export const workshopAddress = (request: Request, workshopId: string): string => `${originOf(request)}/w/${workshopId}`;
