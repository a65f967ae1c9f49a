"use client";

import {
  decimalsFor,
  type Gate,
  type MassUnit,
  massParts,
  type TemperatureUnit,
  temperatureParts,
  writeBulk,
  writeDifference,
  writeDuration,
  writeGate,
  writeMass,
  writeMoney,
  writeTemperature,
} from "@hearth/core";
import { DateTime } from "luxon";
import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from "react";

export interface Units {
  mass: MassUnit;
  /** ISO 4217; euro where nothing is said. */
  currency?: string;
  temperature: TemperatureUnit;
  zone: string;
}

/** Writes quantities as this workshop reads them. */
export function writers(units: Units) {
  const local = (iso: string) => DateTime.fromISO(iso, { zone: units.zone }).setLocale("en");
  return {
    ...units,
    g: (mg: number, resolutionUg: number | null = null) => writeMass(mg, units.mass, resolutionUg),
    /** A computed weight, to a tenth of a gram or a hundredth of an ounce; finer below ten grams. */
    about: (mg: number) => {
      const step = units.mass === "oz" ? 1 : Math.abs(mg) < 10_000 ? 10 : 100;
      return writeMass(Math.round(mg / step) * step, units.mass);
    },
    /** A store of something: kilograms or pounds where there is much of it. */
    bulk: (mg: number) => writeBulk(mg, units.mass),
    money: (minor: number, extra = 0) => writeMoney(minor, units.currency ?? "EUR", extra),
    gParts: (mg: number, resolutionUg: number | null = null) => massParts(mg, units.mass, resolutionUg),
    gDecimals: (resolutionUg: number | null) => decimalsFor(units.mass, resolutionUg),
    t: (centi: number) => writeTemperature(centi, units.temperature),
    tParts: (centi: number) => temperatureParts(centi, units.temperature),
    tDifference: (centi: number) => writeDifference(centi, units.temperature),
    gate: (gate: Gate) => writeGate(gate, units.temperature),
    clock: (iso: string) => local(iso).toFormat("HH:mm"),
    isoDay: (iso: string) => local(iso).toFormat("yyyy-LL-dd"),
    day: (iso: string) => local(iso).toFormat("ccc d LLL"),
    dayClock: (iso: string) => local(iso).toFormat("ccc d LLL HH:mm"),
    full: (iso: string) => local(iso).toFormat("yyyy-LL-dd HH:mm:ss"),
    /** "in 3 h", "2 days ago". */
    away: (iso: string, now: string) => {
      const seconds = (Date.parse(iso) - Date.parse(now)) / 1_000;
      if (Math.abs(seconds) < 45) return "now";
      return seconds > 0 ? `in ${writeDuration(seconds)}` : `${writeDuration(seconds)} ago`;
    },
  };
}
export type Writers = ReturnType<typeof writers>;

const UnitsContext = createContext<Units>({ mass: "g", temperature: "C", zone: "UTC" });
const ClockContext = createContext<{ now: string; frozen: boolean }>({ now: "1970-01-01T00:00:00.000Z", frozen: true });

export function Ground({ units, now, frozen, children }: { units: Units; now: string; frozen: boolean; children: ReactNode }) {
  return (
    <UnitsContext value={units}>
      <ClockContext value={{ now, frozen }}>{children}</ClockContext>
    </UnitsContext>
  );
}

export function useUnits(): Writers {
  const units = useContext(UnitsContext);
  return useMemo(() => writers(units), [units]);
}

/** The server's time, ticking on; a phone with a wrong clock still sees the workshop's time. */
export function useNow(everyMs = 1_000): string {
  const { now, frozen } = useContext(ClockContext);
  const [shown, setShown] = useState(now);
  useEffect(() => {
    setShown(now);
    if (frozen) return;
    const ahead = Date.parse(now) - Date.now();
    const timer = setInterval(() => setShown(new Date(Date.now() + ahead).toISOString()), everyMs);
    return () => clearInterval(timer);
  }, [now, frozen, everyMs]);
  return shown;
}
