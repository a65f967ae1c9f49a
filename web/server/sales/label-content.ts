import {
  burnHours,
  burnTimeWords,
  careTexts,
  dayAt,
  displayPanelMm2,
  figureHeightByAreaMm,
  figureHeightMm,
  HAZARD_SIZES,
  type LabelContainer,
  type Language,
  LOCALE_FORMATS,
  type MixHazard,
  netWeightText,
  pictogramMm,
  potOfProduct,
  safetyTexts,
  textOf,
  wordsOf,
  writeDay,
} from "@hearth/core";
import { and, eq, isNotNull, ne } from "drizzle-orm";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { molds, vessels, waxes } from "@/data/tables/shelf";
import { burnOutcomes } from "@/data/tables/trial";
import { readBatchState } from "@/server/events/read-events";
import { hazardOfBatch, hazardOfRecipe } from "@/server/inventory/safety-data-sheets";
import type { Block } from "@/server/paper/label-layout";
import { MM } from "@/server/paper/paper";
import { newestSpecs, readProduct } from "@/server/products/products";
import { type LabelSettings, readLabelling } from "./label-settings";

export const LABEL_KINDS = ["scent", "safety", "hazard", "net", "care", "buyer"] as const;
export type LabelKind = (typeof LABEL_KINDS)[number];

/** Everything that labels, cards and the buyer's page of one product say; with its batch where one is named. */
export interface LabelFacts {
  productId: string;
  name: string;
  /** Family of its wax, as a buyer is told: never the recipe. */
  family: string;
  scented: boolean;
  container: LabelContainer;
  /** What is stated of one piece, and how many are in a pack. */
  statedMg: number;
  pack: number;
  batch: { id: string; number: number; pouredOn: string } | null;
  hazard: MixHazard;
  hours: { low: number; high: number; testCandles: number } | null;
  settings: LabelSettings;
  /** The rooms that its scent fills, where buyers are told. */
  rooms: string[];
  /** The unique formula identifier of its mixture; empty if none was given. */
  ufi: string;
  /** The principal display panel of one piece, in mm²; null if its measures are not known. */
  panelMm2: number | null;
  /** Sold in the United States: its measures and spelling come first. */
  isUs: boolean;
}

/** Returns what a label is made for: a product, and the batch that its pieces are of. */
export async function labelFacts(
  db: Database,
  workshop: { id: string; timeZone: string; locale: string },
  at: { productId: string; batchId: string | null },
): Promise<LabelFacts | null> {
  const product = await readProduct(db, workshop.id, at.productId);
  if (!product) return null;
  const spec = (await newestSpecs(db, workshop.id, [product.formulaId])).get(product.formulaId);
  if (!spec) return null;
  const table = product.container === "vessel" ? vessels : molds;
  const [[container], [wax], [row], rates, { settings }] = await Promise.all([
    db
      .select()
      .from(table as typeof vessels)
      .where(and(eq(table.workshopId, workshop.id), eq(table.id, product.containerId))),
    db
      .select({ family: waxes.family })
      .from(waxes)
      .where(and(eq(waxes.workshopId, workshop.id), eq(waxes.id, spec.waxes[0]?.id ?? product.id))),
    at.batchId
      ? db
          .select()
          .from(batches)
          .where(and(eq(batches.workshopId, workshop.id), eq(batches.id, at.batchId)))
      : Promise.resolve([]),
    db
      .select({ rate: burnOutcomes.gramsPerHour })
      .from(burnOutcomes)
      .where(
        and(
          eq(burnOutcomes.workshopId, workshop.id),
          eq(burnOutcomes.productId, product.id),
          eq(burnOutcomes.half, false),
          ne(burnOutcomes.decided, "failed"),
          isNotNull(burnOutcomes.gramsPerHour),
        ),
      ),
    readLabelling(db, workshop.id),
  ]);
  if (at.batchId && !row) return null;
  const kept = row ? await readBatchState(db, row) : null;
  const inContainer = kept?.plan.products.filter((item) => item.containerId === product.containerId) ?? [];
  const poured = inContainer.find((item) => kept?.plan.pots[potOfProduct(item)]?.formulaId === product.formulaId) ?? inContainer[0];
  const containerFill = container && "fillMg" in container ? Number(container.fillMg) : container?.statedFillMg;
  const statedMg = poured?.statedFillMg ?? containerFill ?? 0;
  const hazard = row ? (await hazardOfBatch(db, workshop.id, row.id, product))?.whole : await hazardOfRecipe(db, workshop.id, spec);
  if (!hazard) return null;
  return {
    productId: product.id,
    name: product.name,
    rooms: product.fillsRooms?.isTold ? product.fillsRooms.rooms : [],
    family: kept?.plan.pots[potOfProduct(poured)]?.waxFamily ?? wax?.family ?? "",
    scented: spec.fragrances.length > 0 && spec.loadPpm > 0,
    container: product.labelContainer ?? (product.wickId === null ? "melt" : product.container === "mold" ? "pillar" : "container"),
    statedMg,
    pack: product.pack,
    batch: row ? { id: row.id, number: row.number, pouredOn: dayAt(row.pouredAt ?? row.startedAt, workshop.timeZone) } : null,
    hazard,
    hours: burnHours(
      poured?.fillMg ?? statedMg,
      rates.flatMap((rate) => rate.rate ?? []),
    ),
    settings,
    ufi: settings.ufis[product.formulaId] ?? "",
    panelMm2: container ? panelOf(product.container, container) : null,
    isUs: workshop.locale === "en-US",
  };
}

/** A vessel's wall where its outer measure is not known, in mm: common practice, no source. */
const WALL_MM = 3;
function panelOf(kind: "vessel" | "mold", container: Pick<typeof vessels.$inferSelect, "innerTopUm" | "heightUm" | "outerUm" | "outerHeightUm">): number {
  const wall = kind === "vessel" ? 2 * WALL_MM : 0;
  return displayPanelMm2(
    container.outerUm ? container.outerUm / 1_000 : container.innerTopUm / 1_000 + wall,
    (container.outerHeightUm ?? container.heightUm) / 1_000,
  );
}

/** Letters and figures are about so much of their size high: measured on this typeface. */
const FIGURE = 0.66;

/** Returns the stated weight in both systems, its figures no smaller than both rules ask: by the weight, and by the package's display panel. */
function netBlock(content: LabelFacts, language: Language, forPack: boolean, areaMm2: number): Block {
  const mg = content.statedMg * (forPack ? content.pack : 1);
  const height = Math.max(figureHeightMm(mg), figureHeightByAreaMm(content.panelMm2 ?? areaMm2));
  return { is: "text", text: `${textOf("net", language)} ${netWeightText(mg, content.isUs, language)}`, bold: true, least: (height * MM) / FIGURE, gap: 0.3 };
}
const batchText = (content: LabelFacts, language: Language): string => (content.batch ? `${textOf("batch", language)} ${content.batch.number}` : "");

/** Returns whose pages for buyers these are: at the address where the workshop hosts them, or at this program's own. */
export function buyerFile(content: Pick<LabelFacts, "name" | "batch">): string {
  const plain = content.name
    .normalize("NFKD")
    .replace(/[^\w\s-]/g, "")
    .trim()
    .toLowerCase()
    .replace(/[\s_]+/g, "-")
    .slice(0, 40);
  return `candle-${content.batch ? `${content.batch.number}-` : ""}${plain || "candle"}.html`;
}
export function buyerAddress(content: LabelFacts, workshopId: string, origin: string): string {
  if (content.settings.base) return `${content.settings.base.replace(/\/+$/, "")}/${buyerFile(content)}`;
  return `${origin}/api/workshops/${workshopId}/buyers?product=${content.productId}${content.batch ? `&batch=${content.batch.id}` : ""}`;
}

/** Returns what stands on a label of a kind, in one language or several. */
export function labelBlocks(
  kind: LabelKind,
  content: LabelFacts,
  languages: readonly Language[],
  at: { areaMm2: number; forPack: boolean; address: string; locale: string },
): Block[] {
  const first = languages[0] ?? "en";
  const text = (said: string, more: Partial<Extract<Block, { is: "text" }>> = {}): Block[] => (said === "" ? [] : [{ is: "text", text: said, ...more }]);
  const maker = text(content.settings.maker, { gap: 0.4, scale: 0.9 });
  const manner = LOCALE_FORMATS[at.locale as keyof typeof LOCALE_FORMATS] ?? LOCALE_FORMATS["en-GB"];
  switch (kind) {
    case "scent":
      return [
        ...text(content.name, { scale: 1.5, bold: true }),
        ...languages.flatMap((language) =>
          text([content.family ? `${content.family} · ` : "", content.scented ? "" : textOf("none", language)].join("").replace(/ · $/, "")),
        ),
        netBlock(content, first, at.forPack, at.areaMm2),
        ...text(batchText(content, first)),
        ...maker,
      ];
    case "net":
      return [netBlock(content, first, at.forPack, at.areaMm2), ...text(batchText(content, first))];
    case "safety": {
      const texts = languages.map((language) => safetyTexts(content.container, language, language === first ? content.settings.own : [], content.isUs));
      const signs = texts[0]?.always.map((item) => item.sign) ?? [];
      return [
        // ASTM F2058 (from memory) asks for the signal word and what it is about, before all else.
        ...(content.isUs && signs.length > 0 && languages.includes("en") ? text(textOf("warning", "en"), { bold: true, scale: 1.25 }) : []),
        ...(signs.length > 0 ? [{ is: "safety" as const, signs }] : []),
        ...texts.flatMap((item, index) => [
          ...text(item.always.map((each) => each.text).join(" "), { bold: true, gap: index > 0 ? 0.4 : 0 }),
          ...text(item.more.join(" "), { bold: item.always.length === 0 }),
        ]),
        ...text(batchText(content, first)),
        ...maker,
      ];
    }
    case "hazard": {
      const without = content.hazard.without.map((mixPart) => mixPart.name);
      return [
        ...text(content.name, { bold: true }),
        ...(content.hazard.answer.pictograms.length > 0
          ? [{ is: "hazard" as const, codes: content.hazard.answer.pictograms, mm: pictogramMm(at.areaMm2), wishMm: HAZARD_SIZES.pictogram }]
          : []),
        ...languages.flatMap((language, index) => {
          const words = wordsOf(content.hazard.answer, language, without);
          return [
            ...text(words.signal ?? "", { bold: true, scale: 1.2, gap: index > 0 ? 0.4 : 0 }),
            ...text(words.contains ?? ""),
            ...text([...words.h, ...words.euh].join(" ")),
            ...text(words.p.join(" ")),
            ...text(words.rests ?? "", { bold: true }),
            ...text(words.draft, { scale: 0.9 }),
          ];
        }),
        netBlock(content, first, at.forPack, 0),
        ...text(batchText(content, first)),
        ...text(content.ufi && `UFI: ${content.ufi}`),
        ...maker,
        ...text(content.settings.address, { scale: 0.9 }),
        ...text(content.settings.phone && `${textOf("phone", first)} ${content.settings.phone}`, { scale: 0.9 }),
      ];
    }
    case "care":
      return [
        ...text(content.name, { scale: 1.4, bold: true }),
        ...languages.flatMap((language) => [
          ...(content.hours && content.container !== "melt" ? text(`${burnTimeWords(content.hours, language)}.`, { bold: true, gap: 0.4 }) : []),
          ...careTexts(content.container, language, content.family === "soy", content.isUs).flatMap((careText) => text(careText)),
        ]),
        ...text(batchText(content, first), { gap: 0.4 }),
        ...maker,
      ];
    case "buyer":
      return [
        { is: "code", address: at.address },
        ...text(content.name, { bold: true }),
        ...text(textOf("care", first)),
        ...text(batchText(content, first)),
        ...(content.batch ? text(textOf("made", first, { day: writeDay(content.batch.pouredOn, manner.date) })) : []),
      ];
  }
}
