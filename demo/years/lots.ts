import { randomFrom } from "@hearth/core";
import { LOTS } from "../workshop";
import { shareOfToday } from "./prices";
import type { YearsScenario } from "./scenario";

/** What a batch drew of a material, and when it was started: days before now. */
export interface Draw {
  materialId: string;
  amount: number;
  daysBefore: number;
}

type LotKind = (typeof LOTS)[number]["kind"];
/** What is bought at one time, in milligrams or pieces, and what one thousandth of it costs in cents where no lot of today says so. Invented. */
const PURCHASES: Record<LotKind, { amount: number; perThousand: number }> = {
  wax: { amount: 200_000_000, perThousand: 150 },
  fragrance: { amount: 5_000_000, perThousand: 45 },
  dye: { amount: 250_000, perThousand: 8 },
  additive: { amount: 5_000_000, perThousand: 5 },
  wick: { amount: 1_000, perThousand: 9 },
  vessel: { amount: 144, perThousand: 15 },
  embed: { amount: 200, perThousand: 8_000 },
  pack: { amount: 500, perThousand: 20 },
};
/** Labels and tape come by the roll. */
const ROLL = 2_000;
/** Costs rose by this much a year. */
const YEARLY_RISE = 0.025;

/** Returns the lots that a workshop bought over the years, each some days before what was left would not have been enough. `draws` in the order of time. */
export function yearsLots(draws: readonly Draw[], { materials }: YearsScenario, now: Date) {
  const random = randomFrom(20_260_316);
  const kindOf = new Map<string, { kind: LotKind; name: string; isRoll: boolean }>();
  const lists: [LotKind, readonly { id: string; name: string }[]][] = [
    ["wax", materials.waxes],
    ["fragrance", materials.fragrances],
    ["dye", materials.dyes],
    ["additive", materials.additives],
    ["wick", materials.wicks],
    ["vessel", materials.vessels],
    ["pack", materials.packs],
  ];
  for (const [kind, list] of lists) for (const { id, name } of list) kindOf.set(id, { kind, name, isRoll: /label|tape/.test(name) });
  const costOf = (materialId: string) => {
    const lot = LOTS.find((lot) => lot.materialId === materialId && lot.cost !== null);
    return lot ? lot.cost / lot.amount : null;
  };
  const left = new Map<string, number>();
  const purchases = new Map<string, number>();
  return draws.flatMap(({ materialId, amount, daysBefore }) => {
    const material = kindOf.get(materialId);
    if (!material) return [];
    const onHand = left.get(materialId) ?? 0;
    left.set(materialId, onHand - amount);
    if (onHand >= amount) return [];
    const { amount: usual, perThousand } = PURCHASES[material.kind];
    const size = material.isRoll ? ROLL : usual;
    const amountBought = size * Math.max(1, Math.ceil((amount - onHand) / size));
    left.set(materialId, onHand - amount + amountBought);
    const n = (purchases.get(materialId) ?? 0) + 1;
    purchases.set(materialId, n);
    const each = costOf(materialId) ?? perThousand / (usual / 1_000);
    const initials = material.name
      .split(/[\s,]+/)
      .map((word) => word[0]?.toUpperCase() ?? "")
      .join("");
    const receivedDays = Math.ceil(daysBefore + 2 + random() * 9);
    return [
      {
        kind: material.kind,
        materialId,
        code: material.kind === "vessel" ? `box ${n}` : `${initials}-${1_000 + n}`,
        amount: amountBought,
        cost: Math.round(each * amountBought * shareOfToday(daysBefore, YEARLY_RISE)),
        receivedOn: new Date(now.getTime() - receivedDays * 86_400_000).toISOString().slice(0, 10),
      },
    ];
  });
}
