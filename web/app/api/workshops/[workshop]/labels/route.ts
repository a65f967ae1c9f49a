import { LANGUAGES, perSheet } from "@hearth/core";
import { z } from "zod";
import { workshopRoute } from "@/server/auth/authorize";
import { errorResponse } from "@/server/http/respond";
import { originOf, pdfResponse } from "@/server/paper/answer";
import { paperInThread } from "@/server/paper/draw";
import { labelSvg } from "@/server/paper/labels";
import { buyerAddress, LABEL_KINDS, labelBlocks, labelFacts } from "@/server/sales/label-content";
import { listLabelSheets } from "@/server/sales/label-settings";

const count = z.coerce.number().int();
const asked = z.object({
  product: z.uuid(),
  batch: z.uuid().optional(),
  kind: z.enum(LABEL_KINDS).default("safety"),
  lang: z
    .string()
    .default("en")
    .transform((text) => text.split(","))
    .pipe(z.array(z.enum(LANGUAGES)).min(1).max(3)),
  sheet: z.string().max(60).default("a4-3x8"),
  count: count.min(1).max(2_000).default(1),
  /** The first label that is still on the sheet, counted from 1. */
  from: count.min(1).max(800).default(1),
  of: z.enum(["piece", "pack"]).default("piece"),
  test: z.literal("1").optional(),
  as: z.enum(["pdf", "svg"]).default("pdf"),
});

/** Labels of a product, of a batch where one is named: on a sheet as PDF, or one of them as a picture. */
export const GET = workshopRoute({ area: "sell", action: "see" }, {}, "There is no such workshop.", async (request, { db, workshop }) => {
  const read = asked.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (!read.success) return errorResponse(400, read.error.issues[0]?.message ?? "This cannot be read.");
  const of = read.data;
  const state = await labelFacts(db, workshop, { productId: of.product, batchId: of.batch ?? null });
  if (!state) return errorResponse(404, "There is no such product or batch in this workshop.");
  const sheet = (await listLabelSheets(db, workshop.id)).find((labelSheet) => labelSheet.id === of.sheet)?.sheet;
  if (!sheet) return errorResponse(404, "There is no such sheet of labels here.");
  const areaMm2 = (sheet.width / 1_000) * (sheet.height / 1_000) * (sheet.round ? Math.PI / 4 : 1);
  const blocks = labelBlocks(of.kind, state, of.lang, {
    areaMm2,
    forPack: of.of === "pack",
    address: buyerAddress(state, workshop.id, originOf(request)),
    locale: workshop.locale,
  });
  const title = `${state.name}: ${of.kind} label`;
  const small = () =>
    errorResponse(
      400,
      `This does not fit a label of ${sheet.width / 1_000} × ${sheet.height / 1_000} mm, even in the smallest print. Choose a larger label or fewer languages.`,
    );
  if (of.as === "svg") {
    const svg = labelSvg(blocks, sheet, title);
    return svg ? new Response(svg, { headers: { "content-type": "image/svg+xml; charset=utf-8", "cache-control": "no-store" } }) : small();
  }
  const job = { what: "labels" as const, blocks, sheet, asked: { title, count: of.count, from: (of.from - 1) % perSheet(sheet), test: of.test === "1" } };
  const pdf = await paperInThread(job, request.signal);
  return pdf ? pdfResponse(pdf, `labels-${of.kind}`) : small();
});
