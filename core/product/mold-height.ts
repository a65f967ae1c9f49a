import { innerOf, volumeTo } from "./section";

interface Mold {
  innerTopUm: number;
  innerBottomUm: number;
  heightUm: number;
  workingFillMg: number;
  statedFillMg: number;
}

/** Returns a mold as it is filled to another height than usual, in micrometers from its closed end: its fill goes with the volume to there. */
export function moldAtHeight<M extends Mold>(mold: M, heightUm: number): M {
  const inner = innerOf(mold);
  const height = Math.min(heightUm, mold.heightUm);
  const share = volumeTo(inner, height / 1_000) / volumeTo(inner, inner.height);
  const topUm = Math.round(mold.innerBottomUm + ((mold.innerTopUm - mold.innerBottomUm) * height) / mold.heightUm);
  return {
    ...mold,
    heightUm: height,
    innerTopUm: topUm,
    workingFillMg: Math.round(mold.workingFillMg * share),
    statedFillMg: Math.round(mold.statedFillMg * share),
  };
}
