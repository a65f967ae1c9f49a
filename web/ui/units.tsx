"use client";

import {
  currencyDecimals,
  dayAt,
  decimalsFor,
  degreesAsTyped,
  inUnits,
  isLocale,
  keepZoneOffsets,
  type LengthUnit,
  LOCALE_FORMATS,
  localize,
  type MassUnit,
  MG_PER,
  ML_PER,
  massParts,
  poundsAndOunces,
  type ScaleDisplay,
  scaleParts,
  sumOfShown,
  type TemperatureRange,
  type TemperatureUnit,
  temperatureParts,
  typedUnit,
  wallAt,
  writeBulk,
  writeClock,
  writeDay,
  writeDensity,
  writeDifference,
  writeDuration,
  writeLength,
  writeMoney,
  writeNumber,
  writeOnScale,
  writePercent,
  writeRange,
  writeReach,
  writeResolution,
  writeTemperature,
  type ZoneOffsets,
} from "@hearth/core";
import { createContext, type ReactNode, startTransition, useContext, useEffect, useMemo, useState } from "react";

export interface Units {
  mass: MassUnit;
  /** ISO 4217; euro if nothing is given. */
  currency?: string;
  temperature: TemperatureUnit;
  zone: string;
  length?: LengthUnit;
  /** Weights of a pound and more as pounds and ounces. */
  pounds?: boolean;
  /** How days, clock and decimal mark are written: a name of core's manners. */
  locale?: string;
  /** The workshop's day as ISO text: days of other years are written with their year. Where it is not known, none is. */
  today?: string;
}

/** What is a pound to a hundredth of an ounce. */
const A_POUND = MG_PER.lb - 141;

/** Writes quantities as this workshop reads them. */
export function formatters(units: Units) {
  const dayOf = (iso: string) => dayAt(iso, units.zone);
  const manner = LOCALE_FORMATS[isLocale(units.locale ?? "") ? (units.locale as keyof typeof LOCALE_FORMATS) : "en-GB"];
  const shown = (text: string) => localize(text, manner);
  const year = units.today?.slice(0, 4);
  /** A day by a pattern, with its year unless it is this year's. */
  const dated = (day: string, pattern: string) =>
    writeDay(day, year === undefined || day.startsWith(year) ? pattern : `${pattern}${pattern.endsWith("LLL d") ? "," : ""} yyyy`);
  const clock = (iso: string, seconds = false) => writeClock(wallAt(iso, units.zone), manner.hours, seconds);
  const mass = (mg: number) => {
    const parts = massParts(mg, units.mass);
    const many = units.pounds && units.mass === "oz" && Math.abs(mg) >= A_POUND;
    return many ? { ...parts, figure: poundsAndOunces(mg, decimalsFor("oz", null)) } : parts;
  };
  const parts = (mg: number) => {
    const { figure, unit } = mass(mg);
    return { figure: shown(figure), unit };
  };
  const written = ({ figure, unit }: { figure: string; unit: string }) => `${figure} ${unit}`;
  /** To a tenth of a gram or a hundredth of an ounce; finer below ten grams. */
  const about = (mg: number) => {
    const step = units.mass === "oz" ? 1 : Math.abs(mg) < 10_000 ? 10 : 100;
    return Math.round(mg / step) * step;
  };
  /** A weight as it is shown: to a tenth of a gram, or a hundredth of an ounce. */
  const asShown = (mg: number) => (units.mass === "oz" ? Math.round((Math.round((mg / MG_PER.oz) * 100) / 100) * MG_PER.oz) : Math.round(mg / 100) * 100);
  const choice = { ...units, length: units.length ?? ("mm" as const) };
  return {
    ...choice,
    /** What is kept of a weight that was worked out: the same that is shown of it. */
    asShown,
    manner,
    /** The same as they may be typed over, with a decimal point and nothing between thousands. */
    typed: { g: (mg: number) => written(mass(mg)), about: (mg: number) => written(mass(about(mg))) },
    n: (value: number, decimals: number, keepZeros = false) => shown(writeNumber(value, decimals, keepZeros)),
    percent: (ppm: number, decimals = 2) => shown(writePercent(ppm, decimals)),
    density: (of: number) => shown(writeDensity(of, units.mass)),
    /** What a density is called on data sheets here, and its unit. */
    /** A volume of liquid, in milliliters: fluid ounces where ounces are weighed. */
    volume: (ml: number) => (units.mass === "g" ? `${shown(writeNumber(ml, 1))} ml` : `${shown(writeNumber(ml / ML_PER["fl oz"], 2))} fl oz`),
    /** What a small bottle of oil holds, in milliliters: 10 ml or a fluid ounce. */
    bottleMl: units.mass === "g" ? 10 : ML_PER["fl oz"],
    densityName: units.mass === "g" ? "Density" : "Specific gravity",
    densityUnit: units.mass === "g" ? "g/ml" : "",
    /** The same without touching its other numbers, which may be as they were typed. */
    inUnits: (text: string) => inUnits(text, choice),
    /** A sentence of the program with its measures in the workshop's units, and its numbers as this place writes them. */
    say: (sentence: string) => shown(inUnits(sentence, choice)),
    /** A length: in whole tenths of a millimeter, or in inches by sixteenths. */
    len: (um: number) => shown(writeLength(um, choice.length)),
    /** How far something reaches in a room: feet or meters. */
    reach: (um: number) => shown(writeReach(um, choice.length)),
    g: (mg: number) => written(parts(mg)),
    /** A weight as the scale shows that it is weighed on, in the scale's own unit. */
    onScale: (mg: number, scale: ScaleDisplay) => shown(writeOnScale(mg, scale)),
    scaleParts: (mg: number, scale: ScaleDisplay) => ({ ...scaleParts(mg, scale), figure: shown(scaleParts(mg, scale).figure) }),
    /** The same in the workshop's unit, to stand beside it; empty if the scale shows that unit already. */
    beside: (mg: number, scale: ScaleDisplay) => (typedUnit(scale) === units.mass ? "" : written(parts(mg))),
    /** The total of what was weighed: in the unit of its scales where they have one in common, and beside it in the workshop's; the shown parts add up to it. */
    total: (all: readonly { mg: number; scale: ScaleDisplay }[]) => {
      const weighed = all.filter((part) => part.mg > 0);
      const mg = weighed.reduce((sum, part) => sum + part.mg, 0);
      const inOwn = written(
        parts(
          sumOfShown(
            weighed.map((part) => part.mg),
            units.mass,
          ),
        ),
      );
      const [finest] = weighed.map((part) => part.scale).sort((a, b) => a.resolutionUg - b.resolutionUg);
      if (!finest || weighed.some((part) => typedUnit(part.scale) !== typedUnit(finest))) return { main: inOwn, beside: "" };
      return { main: shown(writeOnScale(mg, finest)), beside: typedUnit(finest) === units.mass ? "" : inOwn };
    },
    resolution: (scale: ScaleDisplay) => shown(writeResolution(scale)),
    about: (mg: number) => written(parts(about(mg))),
    /** A store of something: kilograms or pounds where there is much of it. */
    bulk: (mg: number) => (units.pounds && units.mass === "oz" && Math.abs(mg) >= A_POUND ? written(parts(mg)) : shown(writeBulk(mg, units.mass))),
    /** Asked where it is needed: the first question about a currency takes a phone a tenth of a second. */
    moneyDecimals: () => currencyDecimals(units.currency ?? "EUR"),
    money: (minor: number, extra = 0) => writeMoney(minor, units.currency ?? "EUR", extra, units.locale),
    /** What a kilogram or a pound costs, by minor units to a kilogram. */
    costPerBulk: (minorPerKg: number) =>
      units.mass === "g"
        ? `${writeMoney(Math.round(minorPerKg), units.currency ?? "EUR", 0, units.locale)} per kg`
        : `${writeMoney(Math.round((minorPerKg * MG_PER.lb) / MG_PER.kg), units.currency ?? "EUR", 0, units.locale)} per lb`,
    gParts: parts,
    t: (centi: number) => shown(writeTemperature(centi, units.temperature)),
    tShown: (centi: number) => shown(`${degreesAsTyped(centi, units.temperature)} °${units.temperature}`),
    tParts: (centi: number) => temperatureParts(centi, units.temperature),
    tDifference: (centi: number) => shown(writeDifference(centi, units.temperature)),
    range: (range: TemperatureRange) => shown(writeRange(range, units.temperature)),
    clock: (iso: string) => clock(iso),
    isoDay: dayOf,
    day: (iso: string) => dated(dayOf(iso), manner.day),
    /** Day and month, without the weekday. */
    monthDay: (iso: string) => dated(dayOf(iso), manner.day.replace(/ccc,? /, "")),
    date: (iso: string) => writeDay(dayOf(iso), manner.date),
    dayClock: (iso: string) => `${dated(dayOf(iso), manner.day)} ${clock(iso)}`,
    full: (iso: string) => `${writeDay(dayOf(iso), manner.date)} ${clock(iso, true)}`,
    /** A day that is known by its date alone. */
    onDay: (day: string) => dated(day, manner.day),
    onDate: (day: string) => writeDay(day, manner.date),
    /** "in 3 h", "2 days ago". */
    away: (iso: string, now: string) => {
      const seconds = (Date.parse(iso) - Date.parse(now)) / 1_000;
      if (Math.abs(seconds) < 45) return "now";
      return seconds > 0 ? `in ${writeDuration(seconds)}` : `${writeDuration(seconds)} ago`;
    },
  };
}
export type Formats = ReturnType<typeof formatters>;

const UnitsContext = createContext<Units>({ mass: "g", temperature: "C", zone: "UTC" });
/** The workshop's time, as it was measured last, and what this device's own clock makes of it. */
interface Clock {
  /** The workshop's time in ms, when this page's monotonic clock (`performance.now()`) stood at `since`: a device's clock may be set at any moment. */
  at: number;
  since: number;
  /** How far the workshop's time is ahead of this device's clock, in ms. */
  aheadMs: number;
  /** By how much this device's clock was moved while the workshop could not be asked, in ms; 0 where it was not. */
  jumpedMs: number;
  /** The moment at which the workshop's clock stands still, for tests and pictures; null if it runs. */
  frozenAt: string | null;
  /** Time that goes faster, from what it showed when this device's clock stood at `since`; it stands still while `since` is 0. */
  fast?: { shown: number; since: number; speed: number };
}
const ClockContext = createContext<Clock>({ at: 0, since: 0, aheadMs: 0, jumpedMs: 0, frozenAt: "1970-01-01T00:00:00.000Z" });

/** A device whose clock is off by more than this is told so, and its entries are placed by the workshop's time. */
const CLOCK_OFF_MS = 60_000;
/** This device's clock was moved where it and the monotonic one part by more than this. */
const CLOCK_MOVED_MS = 1_500;
/** So often they are compared with each other. */
const COMPARE_MS = 2_000;

const AHEAD = "hearth.ahead";
const keepAhead = (ms: number): void => {
  try {
    localStorage.setItem(AHEAD, String(ms));
  } catch {
    // Without storage there is no kept page either.
  }
};
function keptAhead(): number {
  try {
    return Number(localStorage.getItem(AHEAD)) || 0;
  } catch {
    return 0;
  }
}

/** Returns a clock that shows this time of the workshop, in ms, at a reading of the monotonic clock. */
const clockFrom = (at: number, since: number, frozenAt: string | null = null): Clock => ({
  at,
  since,
  aheadMs: Math.round(at + performance.now() - since - Date.now()),
  jumpedMs: 0,
  frozenAt,
});

interface GroundProps {
  units: Units;
  /** Of the workshop's zone, as the server knows them: a phone's own time zone data takes a fifth of a second to load, and may be older. */
  offsets?: ZoneOffsets;
  now: string;
  frozen: boolean;
  children: ReactNode;
}

/** Gives all below it the workshop's units and its clock. */
export function Ground({ units, offsets, now, frozen, children }: GroundProps) {
  if (offsets) keepZoneOffsets(offsets);
  // Measured once for each reading of the server's time, and shared: a view that opens an hour later still shows the right one.
  const [clock, setClock] = useState<Clock>(() => ({ at: Date.parse(now), since: 0, aheadMs: 0, jumpedMs: 0, frozenAt: now }));
  useEffect(() => {
    // A page that this device kept says an old time: the difference that was measured last holds on.
    const old = document.documentElement.dataset.kept !== undefined;
    // All that shows a time follows; a key that is typed meanwhile comes first.
    startTransition(() => setClock(clockFrom(old ? Date.now() + keptAhead() : Date.parse(now), performance.now(), frozen ? now : null)));
    if (frozen) return;
    let ended = false;
    /** What this device's clock showed beyond the monotonic one when it was measured last. */
    let beyond = Date.now() - performance.now();
    // What a page was drawn with may be old; the server is asked, now and whenever the page is seen again.
    const measure = async (): Promise<boolean> => {
      const sent = performance.now();
      const answer = await fetch("/api/clock", { cache: "no-store", redirect: "manual" }).catch(() => null);
      const said = answer?.ok ? ((await answer.json().catch(() => null)) as { now?: string } | null) : null;
      const there = Date.parse(said?.now ?? "");
      if (Number.isNaN(there) || ended) return false;
      beyond = Date.now() - performance.now();
      const next = clockFrom(there, (sent + performance.now()) / 2);
      setClock(next);
      keepAhead(next.aheadMs);
      return true;
    };
    // Where the two clocks part, this device's was set, by hand or by the network: the server is asked; until it answers the monotonic one holds.
    const compare = async () => {
      const parted = Date.now() - performance.now() - beyond;
      if (Math.abs(parted) < CLOCK_MOVED_MS || (await measure()) || ended) return;
      setClock((was) => ({ ...was, aheadMs: Math.round(was.at + performance.now() - was.since - Date.now()), jumpedMs: Math.round(parted) }));
    };
    const seen = () => document.visibilityState === "visible" && void measure();
    void measure();
    const timer = setInterval(seen, 300_000);
    const comparing = setInterval(() => void compare(), COMPARE_MS);
    document.addEventListener("visibilitychange", seen);
    return () => {
      ended = true;
      clearInterval(timer);
      clearInterval(comparing);
      document.removeEventListener("visibilitychange", seen);
    };
  }, [now, frozen]);
  const today = dayAt(now, units.zone);
  const ofToday = useMemo(() => ({ ...units, today }), [units, today]);
  return (
    <UnitsContext value={ofToday}>
      <ClockContext value={clock}>{children}</ClockContext>
    </UnitsContext>
  );
}

function timeOf({ frozenAt, at, since, fast }: Clock): string {
  const real = frozenAt === null ? at + performance.now() - since : Date.parse(frozenAt);
  if (!fast) return frozenAt ?? new Date(real).toISOString();
  // It never comes into what is still to be.
  return new Date(Math.min(real, fast.shown + (fast.since ? (Date.now() - fast.since) * fast.speed : 0))).toISOString();
}

/** Within it time goes `speed` times as fast, from a moment that is past until it has caught up: for rehearsals. */
export function FastTime({ begin, speed, children }: { begin: string; speed: number; children: ReactNode }) {
  const clock = useContext(ClockContext);
  const [fast, setFast] = useState({ shown: Date.parse(begin), since: 0, speed });
  useEffect(() => setFast((old) => ({ shown: old.since ? old.shown + (Date.now() - old.since) * old.speed : old.shown, since: Date.now(), speed })), [speed]);
  const mine = useMemo(() => ({ ...clock, fast }), [clock, fast]);
  return <ClockContext value={mine}>{children}</ClockContext>;
}

/** The workshop's time at the moment of asking, and whether this device's own clock is off. */
export function useClock() {
  const clock = useContext(ClockContext);
  return {
    now: () => timeOf(clock),
    /** Positive: the device is slow. */
    aheadMs: clock.aheadMs,
    jumpedMs: clock.jumpedMs,
    isOff: clock.frozenAt === null && Math.abs(clock.aheadMs) > CLOCK_OFF_MS,
  };
}

export function useUnits(): Formats {
  const units = useContext(UnitsContext);
  return useMemo(() => formatters(units), [units]);
}

/** Returns the workshop's time, ticking on; a phone with a wrong clock still sees it. */
export function useNow(everyMs = 1_000): string {
  const clock = useContext(ClockContext);
  const [shown, setShown] = useState(() => timeOf(clock));
  useEffect(() => {
    const show = () => setShown(timeOf(clock));
    show();
    if (clock.frozenAt !== null && !clock.fast) return;
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
