"use client";

import {
  decimalsFor,
  type MassUnit,
  massParts,
  type TemperatureRange,
  type TemperatureUnit,
  temperatureParts,
  writeBulk,
  writeDifference,
  writeDuration,
  writeMass,
  writeMoney,
  writeRange,
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
    range: (range: TemperatureRange) => writeRange(range, units.temperature),
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
/** How far the workshop's time is ahead of this device's clock, in ms, as it was measured when the page was read. */
interface Clock {
  aheadMs: number;
  /** The moment at which the workshop's clock stands still, for tests and pictures; null where it runs. */
  frozenAt: string | null;
}
const ClockContext = createContext<Clock>({ aheadMs: 0, frozenAt: "1970-01-01T00:00:00.000Z" });

/** A device whose clock is off by more than this is told so, and its entries are placed by the workshop's time. */
const CLOCK_OFF_MS = 60_000;

export function Ground({ units, now, frozen, children }: { units: Units; now: string; frozen: boolean; children: ReactNode }) {
  // Measured once for each reading of the server's time, and shared: a view that opens an hour later still shows the right one.
  const [clock, setClock] = useState<Clock>(() => ({ aheadMs: 0, frozenAt: now }));
  useEffect(() => {
    setClock({ aheadMs: Date.parse(now) - Date.now(), frozenAt: frozen ? now : null });
    if (frozen) return;
    // What a page was drawn with may be old; the server is asked, now and whenever the page is seen again.
    const measure = async () => {
      const sent = Date.now();
      const answer = await fetch("/api/clock", { cache: "no-store" }).catch(() => null);
      if (!answer?.ok) return;
      const { now: there } = (await answer.json()) as { now: string };
      setClock({ aheadMs: Math.round(Date.parse(there) - (sent + Date.now()) / 2), frozenAt: null });
    };
    const seen = () => document.visibilityState === "visible" && void measure();
    void measure();
    const timer = setInterval(seen, 300_000);
    document.addEventListener("visibilitychange", seen);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", seen);
    };
  }, [now, frozen]);
  return (
    <UnitsContext value={units}>
      <ClockContext value={clock}>{children}</ClockContext>
    </UnitsContext>
  );
}

const timeOf = (clock: Clock): string => clock.frozenAt ?? new Date(Date.now() + clock.aheadMs).toISOString();

/** The workshop's time at the moment of asking, and whether this device's own clock is off. */
export function useClock() {
  const clock = useContext(ClockContext);
  return {
    now: () => timeOf(clock),
    /** Positive: the device is slow. */
    aheadMs: clock.aheadMs,
    isOff: clock.frozenAt === null && Math.abs(clock.aheadMs) > CLOCK_OFF_MS,
  };
}

export function useUnits(): Writers {
  const units = useContext(UnitsContext);
  return useMemo(() => writers(units), [units]);
}

/** The workshop's time, ticking on; a phone with a wrong clock still sees it. */
export function useNow(everyMs = 1_000): string {
  const clock = useContext(ClockContext);
  const [shown, setShown] = useState(() => timeOf(clock));
  useEffect(() => {
    const show = () => setShown(timeOf(clock));
    show();
    if (clock.frozenAt !== null) return;
    const timer = setInterval(show, everyMs);
    // A page that was hidden has stood still: it catches up when it is seen again.
    document.addEventListener("visibilitychange", show);
    window.addEventListener("pageshow", show);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", show);
      window.removeEventListener("pageshow", show);
    };
  }, [clock, everyMs]);
  return shown;
}
