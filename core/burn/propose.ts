import { bySize, seriesOf, suitedWicks } from "../product/wicks";

/** A wick with the diameters and wax families that it suits. */
export interface ShelfWick {
  id: string;
  name: string;
  kind: string;
  size: string;
  series?: string | null;
  fromUm: number | null;
  toUm: number | null;
  families: readonly string[] | null;
}
/** A wick that passed in a trial of this workshop. */
export interface Passed {
  wickId: string;
  kind: string;
  size: string;
  count: number;
  widthUm: number;
  family: string;
  trial: number;
}
export interface WickWanted {
  /** Inner diameter at the wax line and at the bottom. */
  widthUm: number;
  bottomUm: number;
  family: string;
  /** Millionths of the wax. */
  loadPpm: number;
  pillar: boolean;
  /** How many wicks the vessel is made for; null if nobody said more than one. */
  vesselWicks?: number | null;
  /** What it has now. */
  now: { wickId: string; count: number } | null;
  varies: "wick kind" | "wick size";
  /** What a trial before this one asked for. */
  asks?: "wick_up" | "wick_down" | "change_kind" | undefined;
}
export interface Proposal {
  wick: ShelfWick;
  count: number;
  why: string[];
  /** Worth a place in the trial as it is proposed. */
  chosen: boolean;
}

/** Wider vessels take several wicks. Common practice, no source: from about 90 and 115 mm. */
export const TWO_FROM_UM = 90_000;
export const THREE_FROM_UM = 115_000;
/** Thick natural waxes need hotter wicks. Common practice, no source. */
const THICK: readonly string[] = ["soy", "coconut", "beeswax", "palm", "blend"];
/** A jar that narrows by more than this is sized for both ends. */
const TAPER_UM = 3_000;
/** A load above this starves small wicks. Common practice, no source. */
const HEAVY_PPM = 80_000;
/** Of a jar as wide as this one, give or take, earlier results count. */
const NEAR_UM = 4_000;
const MAX_CHOSEN = 3;

export const wicksFor = (widthUm: number): 1 | 2 | 3 => (widthUm >= THREE_FROM_UM ? 3 : widthUm >= TWO_FROM_UM ? 2 : 1);
/** Returns what each of several wicks has to melt, as the diameter of a round of the same area. */
export const shareUm = (widthUm: number, count: number): number => Math.round(widthUm / Math.sqrt(count));

/**
 * Returns the wicks of the shelf that are worth trying in a vessel, with why: by inner diameter at the wax line (and at the bottom of a
 * jar that narrows), family and load. Common practice, no source (trade rules): thick natural waxes a size hotter, gel a zinc
 * core and one size up from paraffin, pillars a zinc core; the kind before the size where no size works.
 */
export function proposeWicks(wicks: readonly ShelfWick[], request: WickWanted, passed: readonly Passed[] = []): Proposal[] {
  const byWidth = request.now && wicksFor(request.widthUm) === 1 ? request.now.count : wicksFor(request.widthUm);
  // What the maker says of the vessel comes before what is usual for so wide a one.
  const count = request.vesselWicks && request.vesselWicks > 1 ? request.vesselWicks : byWidth;
  const width = shareUm(request.widthUm, count);
  const bottom = shareUm(request.bottomUm, count);
  const out = new Map<string, Proposal>();
  const add = (wick: ShelfWick | undefined, why: string, many = count) => {
    if (!wick) return;
    const there = out.get(wick.id);
    if (there) {
      if (!there.why.includes(why)) there.why.push(why);
    } else out.set(wick.id, { wick, count: many, why: [why], chosen: false });
  };
  const beside = (wick: ShelfWick, step: 1 | -1): ShelfWick | undefined => {
    const row = bySize(wicks.filter((item) => seriesOf(item) === seriesOf(wick)));
    return row[row.findIndex((item) => item.id === wick.id) + step];
  };
  const fits = request.family === "gel" || request.pillar ? wicks.filter((wick) => /zinc/i.test(wick.kind)) : wicks;
  const rightFamily = request.family === "gel" ? "" : request.family;
  const atTop = suitedWicks(fits, width, rightFamily);
  const atBottom = suitedWicks(fits, bottom, rightFamily);
  const now = wicks.find((wick) => wick.id === request.now?.wickId);
  const wide = count > 1 ? `, each for its share of the vessel` : "";
  /** Going to another series is said: its sizes cannot be compared with those of the one that burns now. */
  const leaves = (wick: ShelfWick) => (now && seriesOf(wick) !== seriesOf(now) ? `; of another series, ${seriesOf(wick)}` : "");

  for (const item of passed)
    if (item.family === request.family && Math.abs(item.widthUm - request.widthUm) <= NEAR_UM) {
      const wick = wicks.find((each) => each.id === item.wickId);
      add(wick, `passed in trial ${item.trial}, in a jar as wide and a wax of this family${wick ? leaves(wick) : ""}`, item.count);
    }
  if (now) add(now, "what it has now", request.now?.count);
  if (now && request.asks === "wick_up") add(beside(now, 1), "one size up, as the trial before asked");
  if (now && request.asks === "wick_down") add(beside(now, -1), "one size down, as the trial before asked");
  const sized = request.varies === "wick size" && now ? (wick: ShelfWick) => seriesOf(wick) === seriesOf(now) : () => true;
  for (const wick of atTop.filter(sized)) {
    add(wick, `sized for the diameter at the wax line${wide}${leaves(wick)}`);
    if (request.family === "gel") add(beside(wick, 1), "gel takes one size up from paraffin");
    else if (THICK.includes(request.family)) add(beside(wick, 1), `${request.family} is thick: a size hotter than the span says`);
    else if (request.loadPpm > HEAVY_PPM) add(beside(wick, 1), "a heavy load starves small wicks");
  }
  if (request.widthUm - request.bottomUm > TAPER_UM)
    for (const wick of atBottom.filter(sized)) add(wick, "sized for the bottom of a jar that narrows: the lower half burns hotter");
  if (request.varies === "wick size" && now) {
    add(beside(now, 1), "one size up");
    add(beside(now, -1), "one size down");
  }
  // Where no size works the kind goes first: the size of another kind that suits.
  if (request.varies === "wick kind" || request.asks === "change_kind")
    for (const series of new Set(fits.map(seriesOf))) {
      if (now && series === seriesOf(now)) continue;
      const [best] = suitedWicks(
        fits.filter((fit) => seriesOf(fit) === series),
        width,
        rightFamily,
      );
      add(best, best && best.kind === now?.kind ? `another series of ${best.kind}, sized for this diameter` : "another kind, sized for this diameter");
    }
  const list = [...out.values()];
  // Of a trial of kinds one size of each series; of sizes the nearest ones of one.
  const kinds = new Set<string>();
  let chosen = 0;
  for (const proposal of list) {
    if (chosen >= MAX_CHOSEN) break;
    if (request.varies === "wick kind" && kinds.has(seriesOf(proposal.wick))) continue;
    if (request.varies === "wick size" && now && seriesOf(proposal.wick) !== seriesOf(now)) continue;
    kinds.add(seriesOf(proposal.wick));
    proposal.chosen = true;
    chosen += 1;
  }
  return list;
}
