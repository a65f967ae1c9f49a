/** A container as it is packed: as wide as it is round, and how high with its lid. Micrometers. */
export interface PackedContainer {
  name: string;
  widthUm: number;
  heightUm: number;
  count: number;
}
/** A box by its inner measures. */
export interface BoxInner {
  lengthUm: number;
  widthUm: number;
  heightUm: number;
}

/** Where a container stands in the box, seen from above; its layer from below. */
export interface Stood {
  name: string;
  xUm: number;
  yUm: number;
  widthUm: number;
  layer: number;
}

/** Tight below the first, loose above the second, in micrometers of clearance along any side: common practice, no source. */
const TIGHT = 1_000;
const LOOSE = 6_000;

export interface BoxFit {
  verdict: "fits" | "tight" | "loose" | "too small";
  /** What is left along each side once all stand in it; negative where it does not go in. */
  clearance: { length: number; width: number; height: number };
  layers: number;
  stood: Stood[];
}

/** Returns all of one kind in a grid: columns along the length, rows across, layers up. Those after `columns × rows` stand on top. */
function grid(container: PackedContainer, columns: number, rows: number): { length: number; width: number; height: number; layers: number; stood: Stood[] } {
  const layers = Math.ceil(container.count / (columns * rows));
  const stood = Array.from({ length: container.count }, (_, index) => {
    const on = index % (columns * rows);
    return {
      name: container.name,
      xUm: (on % columns) * container.widthUm,
      yUm: Math.floor(on / columns) * container.widthUm,
      widthUm: container.widthUm,
      layer: Math.floor(index / (columns * rows)),
    };
  });
  const used = Math.ceil(Math.min(container.count, columns * rows) / columns);
  return {
    length: Math.min(columns, container.count) * container.widthUm,
    width: used * container.widthUm,
    height: layers * container.heightUm,
    layers,
    stood,
  };
}

/** Several kinds in rows along the length, the widest first, in one layer. */
function inRows(containers: readonly PackedContainer[], lengthUm: number): { length: number; width: number; height: number; layers: number; stood: Stood[] } {
  const all = containers
    .flatMap((container) => Array.from({ length: container.count }, () => container))
    .sort((a, b) => b.widthUm - a.widthUm || b.heightUm - a.heightUm);
  const stood: Stood[] = [];
  let [x, y, row, length] = [0, 0, 0, 0];
  for (const container of all) {
    if (x > 0 && x + container.widthUm > lengthUm) {
      y += row;
      x = 0;
      row = 0;
    }
    stood.push({ name: container.name, xUm: x, yUm: y, widthUm: container.widthUm, layer: 0 });
    x += container.widthUm;
    row = Math.max(row, container.widthUm);
    length = Math.max(length, x);
  }
  return { length, width: y + row, height: Math.max(0, ...all.map((packedContainer) => packedContainer.heightUm)), layers: 1, stood };
}

/**
 * Returns how containers go into a box: round ones as the squares about them, of one kind in a grid and in layers, of several kinds in rows. Of all
 * ways that which goes in with the least left over. Null if nothing is packed.
 */
export function fitInBox(containers: readonly PackedContainer[], box: BoxInner): BoxFit | null {
  const filled = containers.filter((container) => container.count > 0);
  const [only] = filled;
  if (!only) return null;
  const ways =
    filled.length === 1
      ? Array.from({ length: Math.min(only.count, 200) }, (_, index) => index + 1).flatMap((columns) =>
          Array.from({ length: Math.ceil(only.count / columns) }, (_, index) => grid(only, columns, index + 1)),
        )
      : [inRows(filled, box.lengthUm), inRows(filled, box.widthUm)];
  const fits = ways.flatMap((way) => {
    const straight = { length: box.lengthUm - way.length, width: box.widthUm - way.width, height: box.heightUm - way.height };
    const turned = { length: box.lengthUm - way.width, width: box.widthUm - way.length, height: box.heightUm - way.height };
    return [
      { ...way, clearance: straight },
      { ...way, clearance: turned, stood: way.stood.map((item) => ({ ...item, xUm: item.yUm, yUm: item.xUm })) },
    ];
  });
  const least = (item: (typeof fits)[number]) => Math.min(item.clearance.length, item.clearance.width, item.clearance.height);
  const most = (item: (typeof fits)[number]) => Math.max(item.clearance.length, item.clearance.width, item.clearance.height);
  const inside = fits.filter((fit) => least(fit) >= 0).sort((a, b) => most(a) - most(b));
  const best = inside[0] ?? fits.sort((a, b) => least(b) - least(a))[0];
  if (!best) return null;
  const verdict = least(best) < 0 ? "too small" : least(best) < TIGHT ? "tight" : most(best) > LOOSE ? "loose" : "fits";
  return { verdict, clearance: best.clearance, layers: best.layers, stood: best.stood };
}

const RANK = { fits: 0, loose: 1, tight: 2, "too small": 3 } as const;

/** Boxes for what goes in, the fitting ones first and of those the one with the least room to rattle. */
export function boxesFor<B extends BoxInner>(containers: readonly PackedContainer[], boxes: readonly B[]): { box: B; fit: BoxFit }[] {
  const room = (fit: BoxFit) => Math.max(fit.clearance.length, fit.clearance.width, fit.clearance.height);
  return boxes
    .flatMap((box) => {
      const fit = fitInBox(containers, box);
      return fit ? [{ box, fit }] : [];
    })
    .sort((a, b) => RANK[a.fit.verdict] - RANK[b.fit.verdict] || Math.abs(room(a.fit)) - Math.abs(room(b.fit)));
}

/** A wall where nobody measured the outside of a vessel: common practice, no source. Micrometers. */
const WALL = 3_000;

/** A container of the shelf as it is packed; `guessed` where the outside of a vessel was not measured, and a wall is added to the inside. */
export function packedContainerOf(
  container: {
    container?: "vessel" | "mold";
    name: string;
    innerTopUm: number;
    innerBottomUm: number;
    heightUm: number;
    outerUm?: number | null;
    outerHeightUm?: number | null;
  },
  count: number,
): PackedContainer & { guessed: boolean } {
  const inner = Math.max(container.innerTopUm, container.innerBottomUm);
  if (container.container === "mold") return { name: container.name, widthUm: inner, heightUm: container.heightUm, count, guessed: false };
  return {
    name: container.name,
    widthUm: container.outerUm ?? inner + 2 * WALL,
    heightUm: container.outerHeightUm ?? container.heightUm + WALL,
    count,
    guessed: container.outerUm == null || container.outerHeightUm == null,
  };
}
