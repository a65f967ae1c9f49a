import type { BatchPlan } from "../batch/plan";
import { takesContainer } from "./product";

/** One line of what a batch takes from the shelf. */
export interface BillLine {
  materialId: string;
  name: string;
  kind: "wax" | "fragrance" | "dye" | "additive" | "wick" | "vessel" | "embed";
  /** Milligrams, or pieces of what is counted. */
  amount: number;
  counted: boolean;
  /** What it is for: the pot by its place, or the product by its key. */
  for: { pot: number } | { product: string };
}

/** Returns everything that a batch takes: the one list that planning, stock and cost read. Dye by drops counts with the weight of a drop, where that is known. */
export function billOf(plan: Pick<BatchPlan, "pots" | "products">): BillLine[] {
  const lines: BillLine[] = [];
  plan.pots.forEach((pot, index) => {
    for (const part of pot.components) {
      const amount = part.count ? part.count.n * (part.count.eachMg ?? 0) : part.mg;
      if (amount > 0) lines.push({ materialId: part.id, name: part.name, kind: part.kind, amount, counted: false, for: { pot: index } });
    }
  });
  for (const product of plan.products) {
    lines.push(...containerLines(product, product.count));
  }
  return lines;
}

/** Returns what a number of pieces of one product take beside the wax: their containers, wicks and embeds. */
export function containerLines(product: BatchPlan["products"][number], count: number): BillLine[] {
  const to = { product: product.key };
  const laidIn = (product.embeds ?? []).map((embed) => ({
    ...{ materialId: embed.embedId, name: embed.name, kind: "embed" as const, amount: count * embed.count, counted: true, for: to },
  }));
  // An upper layer goes into the container and round the wicks that are there.
  if (product.part?.kind === "layer" && product.part.number > 1) return laidIn;
  return [
    ...(takesContainer(product)
      ? [{ materialId: product.containerId, name: product.name, kind: "vessel" as const, amount: count, counted: true, for: to }]
      : []),
    ...(product.wicks
      ? [{ materialId: product.wicks.wickId, name: product.wicks.name, kind: "wick" as const, amount: count * product.wicks.count, counted: true, for: to }]
      : []),
    ...laidIn,
  ];
}

/** Returns the bill with each material once, in its first place. */
export function gathered(lines: readonly BillLine[]): Omit<BillLine, "for">[] {
  const out = new Map<string, Omit<BillLine, "for">>();
  for (const { for: _for, ...line } of lines) {
    const old = out.get(line.materialId);
    out.set(line.materialId, old ? { ...old, amount: old.amount + line.amount } : line);
  }
  return [...out.values()];
}
