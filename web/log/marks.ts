import type { CurveReading } from "@hearth/core";
import type { HeatMark } from "@/ui/heat-line";

/** Returns readings as a heat line draws them: each by the kind of its instrument. */
export function marksOf(readings: readonly CurveReading[], instruments: readonly { id: string; kind: string }[]): HeatMark[] {
  const kinds = new Map(instruments.map((instrument) => [instrument.id, instrument.kind]));
  return readings.map((reading) => ({ ...reading, instrumentKind: kinds.get(reading.instrumentId ?? "") ?? null }));
}
