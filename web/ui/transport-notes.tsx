"use client";

import { FLAMMABLE_UP_TO, GEL_FLASH_POINT, HOT_PARCEL, isFlammableLiquid, softensFrom } from "@hearth/core";
import { Aside } from "./side-notes";
import { useUnits } from "./units";

const CHECK = "Always check your carrier's and your country's rules.";

/** What the flash point of an oil means in the pot, in gel and in a parcel. */
export function FlashPoint({ flashPoint }: { flashPoint: number | null }) {
  const units = useUnits();
  if (flashPoint === null)
    return <Aside title="Flash point">Not known: ask the supplier. It decides whether the oil may go into gel, and how a bottle of it may be sent.</Aside>;
  const flammable = isFlammableLiquid(flashPoint);
  return (
    <Aside title={`Flash point ${units.t(flashPoint)}`}>
      <strong>In the pot:</strong> a shipping figure of the oil alone; the blend's own is much higher. Some makers never add above it. <strong>In gel:</strong>{" "}
      {flashPoint > GEL_FLASH_POINT ? "high enough for gel" : `too low: gel takes only oils above ${units.t(GEL_FLASH_POINT)}`}. <strong>In a parcel:</strong>{" "}
      {flammable
        ? `at or below ${units.t(FLAMMABLE_UP_TO)} a bottle of it is a flammable liquid, which must be declared and packed for it`
        : `above ${units.t(FLAMMABLE_UP_TO)}, so that a bottle of it is usually no flammable liquid`}
      . {CHECK}
    </Aside>
  );
}

/** From which outside temperature on a wax softens. */
export function MeltingPoint({ melt }: { melt: number }) {
  const units = useUnits();
  const soft = softensFrom(melt) ?? melt;
  return (
    <Aside title={`Melts at ${units.t(melt)}`}>
      It softens from about {units.t(soft)}. A parcel in the sun or a closed car comes to {units.t(HOT_PARCEL)}:{" "}
      {soft < HOT_PARCEL ? "in summer send it cooled and fast, or wait; shade it at the market." : "it stands a summer's day."}
    </Aside>
  );
}

/** A candle of an order, as far as it bears on the way to the buyer. */
export interface ParcelCandle {
  name: string;
  melt: number | null;
  /** The lowest flash point of its oils. */
  flashPoint: number | null;
}

/** What is to be minded when candles are sent, or stand at a hot market. */
export function ParcelNotes({ candles }: { candles: readonly ParcelCandle[] }) {
  const units = useUnits();
  if (candles.length === 0) return null;
  const soft = candles.flatMap(({ name, melt }) => {
    const from = softensFrom(melt);
    return from !== null && from < HOT_PARCEL ? [`${name} from ${units.t(from)}`] : [];
  });
  return (
    <Aside title="On the way">
      {soft.length > 0 ? `These soften: ${soft.join(", ")}. A parcel in the sun or a closed car comes to ${units.t(HOT_PARCEL)}. ` : ""}A set candle is no
      flammable liquid; bottles of oil with a flash point up to {units.t(FLAMMABLE_UP_TO)} are. {CHECK}
    </Aside>
  );
}
