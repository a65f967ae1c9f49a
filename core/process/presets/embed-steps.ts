import { type PlannedEmbed, writeEmbeds } from "../../product/embeds";
import { fillsProduct, isPouring, type Step } from "../process";
import type { Process } from "../schema";
import { stepTypeOf } from "../steps";
import { embed } from "../steps/embed";

const { kind } = embed;
/** The most letters that a step says of what is laid in. */
const MAX_LETTERS = 120;

/** Returns how a step says what is laid into these products: one kind with its number, or all of it in words. */
function saidOf(products: readonly { name: string; embeds: readonly PlannedEmbed[] }[]): { what: string; each: number } {
  const texts = products.map((product) => writeEmbeds(product.embeds));
  const isAlike = texts.every((text) => text === texts[0]);
  const [only] = isAlike && products[0]?.embeds.length === 1 ? products[0].embeds : [];
  if (only) return { what: only.name.slice(0, MAX_LETTERS), each: Math.min(200, only.count) };
  const said = isAlike ? (texts[0] ?? "") : products.map((product, index) => `${texts[index]} in ${product.name}`).join("; ");
  return { what: said.slice(0, MAX_LETTERS), each: 1 };
}

/**
 * Returns a process that says what is laid into the products of a plan, before the pour that fills them: in its own step for it where it has one in that pot,
 * else in a step of its own. Laid in before the pour: common practice, no source.
 */
export function withEmbedSteps(process: Process, products: readonly { name: string; embeds?: readonly PlannedEmbed[] | undefined }[]): Process {
  const byPour = new Map<string, { name: string; embeds: readonly PlannedEmbed[] }[]>();
  products.forEach(({ name, embeds }, index) => {
    const pour = process.steps.find((step) => isPouring(step) && fillsProduct(step, index));
    if (pour && embeds?.length) byPour.set(pour.id, [...(byPour.get(pour.id) ?? []), { name, embeds }]);
  });
  let steps: Step[] = [...process.steps];
  for (const [pourId, group] of byPour) {
    const at = steps.findIndex((step) => step.id === pourId);
    const pot = steps[at]?.pot;
    const own = steps.findIndex((step, index) => index < at && stepTypeOf(step.kind).laysIn && (step.pot ?? 0) === (pot ?? 0));
    const id = steps.some((step) => step.id === kind) ? `${kind}-${pourId}` : kind;
    const step = { id, kind, ...(pot === undefined ? {} : { pot }), ...steps[own], ...saidOf(group) } as Step;
    steps = own >= 0 ? steps.with(own, step) : [...steps.slice(0, at), step, ...steps.slice(at)];
  }
  return { ...process, steps };
}
