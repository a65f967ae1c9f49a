import type { LabelSheet } from "@hearth/core";
import { inThread } from "@/server/operation/thread";
import { type BurnSheet, burnSheetPdf } from "./burn-sheet";
import type { Block } from "./label-layout";
import { labelPdf } from "./labels";
import type { PaperSize } from "./paper";
import { batchSheets, type Capacities, jarTags, type PaperUnits, type SheetOf } from "./sheets";

/** A paper that is asked for: all that its drawing needs, as plain data. */
export type PaperJob =
  | { what: "sheets"; sheets: SheetOf[]; size: PaperSize; units: PaperUnits; capacities: Capacities }
  | { what: "tags"; sheets: SheetOf[]; size: PaperSize; units: PaperUnits; from: number; count: number }
  | { what: "burn"; sheet: BurnSheet; size: PaperSize; units: Parameters<typeof burnSheetPdf>[2] }
  | { what: "labels"; blocks: Block[]; sheet: LabelSheet; asked: { title: string; count: number; from: number; test: boolean } };

/** Draws a paper as PDF; null if a label does not fit. */
export async function drawPaper(job: PaperJob): Promise<Uint8Array | null> {
  switch (job.what) {
    case "sheets":
      return batchSheets(job.sheets, job.size, job.units, job.capacities);
    case "tags":
      return jarTags(job.sheets, job.size, job.units, job);
    case "burn":
      return burnSheetPdf(job.sheet, job.size, job.units);
    case "labels":
      return labelPdf(job.blocks, job.sheet, job.asked);
  }
}

/** The longest that a paper is drawn. */
const LIMIT_MS = 30_000;

/** Draws a paper in a thread of its own, which ends when the client leaves. @throws TooBusy */
export const paperInThread = (job: PaperJob, signal: AbortSignal): Promise<Uint8Array | null> =>
  inThread({ file: "paper.cjs", data: job, signal, limitMs: LIMIT_MS, what: "this paper", here: () => drawPaper(job) });
