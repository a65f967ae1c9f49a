import type { ProductWicks } from "./product";

/** Places of wicks on the surface, in the unit of the diameter, from the center; x to the right, y up. */
export interface WickPlace {
  x: number;
  y: number;
}

/**
 * Returns where one, two or three wicks stand: each at the center of area of the equal slice that it has to melt.
 * One stands in the middle; for two and three it is the centroid of a circular sector, 2 R sin α ÷ (3 α) from the center
 * with α half the sector's angle: 0.424 R and 0.551 R. Source of the centroid: any mechanics handbook. That a wick
 * belongs at the center of its slice is our choice; makers' rules of thumb put two wicks about half a radius out.
 */
export function wickPlaces(diameter: number, count: 1 | 2 | 3): WickPlace[] {
  if (count === 1) return [{ x: 0, y: 0 }];
  const half = Math.PI / count;
  const out = (diameter * Math.sin(half)) / (3 * half);
  return Array.from({ length: count }, (_, index) => {
    const angle = count === 2 ? Math.PI * index : Math.PI / 2 + (2 * Math.PI * index) / count;
    return { x: out * Math.cos(angle), y: out * Math.sin(angle) };
  });
}

/** The line of sizes that a wick belongs to: its maker's series, or, where none is named, all wicks of its kind. Sizes of two series cannot be compared. */
export const seriesOf = (wick: { kind: string; series?: string | null | undefined }): string => wick.series?.trim() || wick.kind;

/** Returns wicks of one series from small to large: by the middle of their span, where they say one, else by the number in their size. */
export function bySize<W extends { fromUm: number | null; toUm: number | null; size: string }>(wicks: readonly W[]): W[] {
  const number = (item: W) => Number.parseFloat(item.size.replace(/^\D*/, "")) || 0;
  const middle = (item: W) => (item.fromUm !== null && item.toUm !== null ? (item.fromUm + item.toUm) / 2 : null);
  return [...wicks].sort((a, b) => {
    const [ma, mb] = [middle(a), middle(b)];
    return (ma !== null && mb !== null ? ma - mb : 0) || number(a) - number(b) || a.size.localeCompare(b.size);
  });
}

/** Returns a wick of the shelf as a product, a plan or a test candle names it. */
export const wicksOf = (wick: { id: string; name: string; kind: string; size: string; series?: string | null | undefined }, count: number): ProductWicks => ({
  wickId: wick.id,
  name: wick.name,
  kind: wick.kind,
  size: wick.size,
  series: seriesOf(wick),
  count,
});

/** A wick as far as it says what it suits: inner diameters at the wax line in micrometers, and families of wax. */
interface Suiting {
  fromUm: number | null;
  toUm: number | null;
  families: readonly string[] | null;
}

/** Returns the wicks that are said to suit a diameter and a family of wax, the narrowest span first. Which is right is for the burn test to say. */
export function suitedWicks<W extends Suiting>(wicks: readonly W[], diameterUm: number, family: string): W[] {
  const span = (item: W) => (item.toUm ?? 0) - (item.fromUm ?? 0);
  return wicks
    .filter(
      (wick) =>
        wick.fromUm !== null &&
        wick.toUm !== null &&
        wick.fromUm <= diameterUm &&
        diameterUm <= wick.toUm &&
        (family === "" || !wick.families || wick.families.length === 0 || wick.families.includes(family)),
    )
    .sort((a, b) => span(a) - span(b));
}

/** A container as far as its wick follows from it. */
interface WickedContainer {
  innerTopUm: number;
  innerBottomUm: number;
  /** Nobody measured it. */
  sizeEstimated?: boolean;
}

/** Returns the wicks in use that are said to suit a container by its narrower end and a family of wax, the narrowest span first; none for one whose size nobody measured. */
export const wicksSuiting = <W extends Suiting & { archived: boolean }>(wicks: readonly W[], container: WickedContainer, family: string): W[] =>
  container.sizeEstimated
    ? []
    : suitedWicks(
        wicks.filter((wick) => !wick.archived),
        Math.min(container.innerTopUm, container.innerBottomUm),
        family,
      );
