import type { Milligrams } from "../units/mass";
import { MG_PER } from "../units/mass";
import { type Ppm, WHOLE } from "../units/percent";
import type { WeighedOut } from "../weigh-out/contract";
import { onScale } from "../weigh-out/increments";
import type { Figure, Step } from "../weigh-out/working";
import type { ComponentKind } from "./component";
import type { DyeDose } from "./spec";

export interface Mix {
  waxes: { id: string; name: string; share: number }[];
  /** `maxPpm`: the most of this oil, in millionths of the wax; null if it is not known. */
  fragrances: { id: string; name: string; share: number; maxPpm?: Ppm | null }[];
  additives: { id: string; name: string; ppm: Ppm }[];
  dyes: { id: string; name: string; by: DyeDose; amount: number; eachMg?: Milligrams | null }[];
}

export interface MixedComponent {
  kind: ComponentKind;
  id: string;
  name: string;
  /** What to weigh; 0 for a dye that is counted. All of them sum to the total. */
  mg: Milligrams;
  /** On a scale without steps, in mg. */
  exactMg: number;
  /** Drops or pieces to count, and the weight of one where it is known. */
  count?: { n: number; of: "drops" | "pieces"; eachMg: Milligrams | null };
}

/** Returns what is counted of a dye, in words: "1 drop", "3 pieces"; pieces that nobody has yet are none. */
export const countWords = (n: number, of: "drops" | "pieces"): string => `${n} ${n === 1 ? of.slice(0, -1) : of}`;
export const countUnit = (n: number, of: "drops" | "pieces"): string => (n === 1 ? of.slice(0, -1) : of);

/** Returns how a kind of dye is dosed at first: chips and blocks by the piece, liquid by the drop, powder by weight. Common practice, no source. */
export const firstDose = (kind: string): { by: DyeDose; amount: number } =>
  kind === "chip" || kind === "block" ? { by: "pieces", amount: 1 } : kind === "powder" ? { by: "percent", amount: 0.1 } : { by: "drops", amount: 4 };

/** "As a rule no more than about 10 drops a pound; one colors a pound of gel": common practice, no source. */
export const MAX_DROPS_PER_LB = { gel: 1, other: 10 } as const;

/** Returns what is weighed beside wax and fragrance: additives, and dyes by percent, in this order. */
export const addedTo = (mix: Pick<Mix, "additives" | "dyes">): { name: string; ppmOfWax: Ppm }[] => [
  ...mix.additives.map((additive) => ({ name: additive.name, ppmOfWax: additive.ppm })),
  ...mix.dyes.filter((dye) => dye.by === "percent").map((dye) => ({ name: dye.name, ppmOfWax: Math.round(dye.amount * 10_000) })),
];

/** Returns the shares of a mix in the form that `weighOut` takes. */
export const sharesOf = (mix: Mix) => ({
  additives: addedTo(mix),
  waxShares: mix.waxes.map((wax) => wax.share),
  waxNames: mix.waxes.map((wax) => wax.name),
  oils: mix.fragrances.map((fragrance) => ({ name: fragrance.name, share: fragrance.share, maxPpm: fragrance.maxPpm ?? null })),
});

/** One material of a candle, and its weight in parts of the wax's. */
export interface PartOfWax {
  kind: ComponentKind;
  id: string;
  name: string;
  ofWax: number;
}

/**
 * Returns what a candle is made of by weight, on scales without steps: what is weighed out, what stands on its label, what it costs and what the
 * record compares with all follow from it. A dye by drops or pieces counts where one of them was weighed.
 * @param askedPpm the load in millionths of the wax
 */
export function partsOfWax(mix: Mix, askedPpm: number): PartOfWax[] {
  const whole = (list: readonly { share: number }[]) => list.reduce((sum, item) => sum + item.share, 0) || 1;
  const [wax, oil] = [whole(mix.waxes), whole(mix.fragrances)];
  const dosed = ({ by, amount, eachMg }: Mix["dyes"][number]) =>
    by === "percent" ? Math.round(amount * 10_000) / WHOLE : (amount * (eachMg ?? 0)) / MG_PER.lb;
  return [
    ...mix.waxes.map(({ id, name, share }) => ({ kind: "wax" as const, id, name, ofWax: share / wax })),
    ...mix.fragrances.map(({ id, name, share }) => ({ kind: "fragrance" as const, id, name, ofWax: ((askedPpm / WHOLE) * share) / oil })),
    ...mix.additives.map(({ id, name, ppm }) => ({ kind: "additive" as const, id, name, ofWax: ppm / WHOLE })),
    ...mix.dyes.map((dye) => ({ kind: "dye" as const, id: dye.id, name: dye.name, ofWax: dosed(dye) })),
  ];
}

/** Puts the parts of one group down with what each weighs, and would weigh on a scale without steps. */
function putShares(out: MixedComponent[], kind: "wax" | "fragrance", parts: Mix["waxes"], masses: readonly Milligrams[], exactMg: number): void {
  let sum = 0;
  for (const part of parts) sum += part.share;
  for (let i = 0; i < parts.length; i++) {
    const part = parts[i] as Mix["waxes"][number];
    out.push({ kind, id: part.id, name: part.name, mg: masses[i] as number, exactMg: (exactMg * part.share) / sum });
  }
}

/** Returns the components to weigh or count, from amounts weighed out; dyes by their dose on the wax really weighed. Grams sum to the total exactly. */
export function mixComponents(amounts: WeighedOut, mix: Mix): MixedComponent[] {
  const { additivesMg, exact } = amounts;
  const out: MixedComponent[] = [];
  putShares(out, "wax", mix.waxes, amounts.waxesMg, exact.waxMg);
  let at = 0;
  for (const additive of mix.additives) {
    out.push({ kind: "additive", id: additive.id, name: additive.name, mg: additivesMg[at] ?? 0, exactMg: exact.additivesMg[at] ?? 0 });
    at += 1;
  }
  if (mix.fragrances.length > 0) putShares(out, "fragrance", mix.fragrances, amounts.oilsMg, exact.fragranceMg);
  for (const dye of mix.dyes) {
    if (dye.by === "percent") {
      out.push({ kind: "dye", id: dye.id, name: dye.name, mg: additivesMg[at] ?? 0, exactMg: exact.additivesMg[at] ?? 0 });
      at += 1;
    } else {
      const n = Math.round((dye.amount * amounts.waxMg) / MG_PER.lb);
      out.push({ kind: "dye", id: dye.id, name: dye.name, mg: 0, exactMg: 0, count: { n, of: dye.by, eachMg: dye.eachMg ?? null } });
    }
  }
  return out;
}

/** Waxes by share with each blend of the shelf opened to what it is made of; the same wax from two places is one part. */
export function openBlends<W extends { id: string; name: string; blend?: { id: string; share: number }[] | null | undefined }>(
  parts: readonly { id: string; share: number }[],
  shelf: readonly W[],
): { wax: W; share: number }[] {
  const out = new Map<string, { wax: W; share: number }>();
  const put = (id: string, share: number, open: boolean) => {
    const wax = shelf.find((item) => item.id === id);
    if (!wax) return;
    if (open && wax.blend && wax.blend.length > 0) {
      const sum = wax.blend.reduce((all, item) => all + item.share, 0);
      for (const item of wax.blend) put(item.id, (share * item.share) / sum, false);
    } else out.set(id, { wax, share: (out.get(id)?.share ?? 0) + share });
  };
  for (const part of parts) put(part.id, part.share, true);
  return [...out.values()];
}

/** The steps that led to one component: those of the amounts, and its own share and rounding where it is one of several. */
export function componentWorking(
  amounts: WeighedOut,
  components: readonly MixedComponent[],
  at: number,
  resolutionUg: number,
): { steps: Step[]; name: string } {
  const part = components[at] as MixedComponent;
  if (part.count) {
    const wax: Figure = { name: "wax", value: amounts.waxMg / 1_000, unit: "g" };
    const step: Step = {
      gives: { name: part.name, value: part.count.n, unit: part.count.of },
      by: "formula",
      from: [wax],
      expression: `${wax.value} g ÷ 453.592 g a pound × dose, rounded`,
    };
    return { steps: [...amounts.working, step], name: part.name };
  }
  if (part.kind !== "wax" && part.kind !== "fragrance") return { steps: amounts.working, name: part.name };
  const group = components.filter((component) => component.kind === part.kind);
  if (group.length === 1) return { steps: amounts.working, name: part.kind };
  const groupMg = part.kind === "wax" ? amounts.waxMg : amounts.fragranceMg;
  const exactAll = part.kind === "wax" ? amounts.exact.waxMg : amounts.exact.fragranceMg;
  const exact: Figure = { name: `${part.name}, exact`, value: (groupMg * (part.exactMg / exactAll)) / 1_000, unit: "g" };
  return {
    steps: [
      ...amounts.working,
      {
        gives: exact,
        by: "multiply",
        from: [
          { name: part.kind, value: groupMg / 1_000, unit: "g" },
          { name: "its share", value: part.exactMg / exactAll, unit: "×" },
        ],
      },
      {
        gives: { name: part.name, value: part.mg / 1_000, unit: "g" },
        from: [exact, { name: "scale step", value: resolutionUg / 1e6, unit: "g" }],
        ...(part.mg === onScale(exact.value * 1_000, resolutionUg)
          ? { by: "round" as const }
          : { by: "formula" as const, expression: "the mark that lets the parts add up to the whole" }),
      },
    ],
    name: part.name,
  };
}
