"use client";

import { memo, type PointerEvent, useCallback, useEffect, useMemo, useRef } from "react";
import { subscribeToDeviceLight } from "../light";
import { useWidth } from "../size";
import { useUnits } from "../units";
import { paint, paintSoon } from "./paint";
import { type Day, type Grip, gripAt, type Moved, type Picture, pictureOf } from "./shapes";

interface TimetableProps extends Day {
  /** When the day begins, as ISO text. */
  begin: string;
  label: string;
  /** A step was drawn to another minute. */
  onMove?: (row: string, step: string, minute: number) => void;
}

/** Paper is finer than screens. */
const ON_PAPER = 3;

/** Draws again what a change of light, of letters or of the screen, or paper, makes look otherwise. */
function useRepaint(paintNow: (fineness: number) => void): void {
  useEffect(() => {
    const again = () => paintNow(window.devicePixelRatio);
    const paper = () => paintNow(ON_PAPER);
    const light = new MutationObserver(again);
    light.observe(document.documentElement, { attributeFilter: ["data-light"] });
    const deviceLight = subscribeToDeviceLight(again);
    document.fonts.addEventListener("loadingdone", again);
    window.addEventListener("resize", again);
    window.addEventListener("beforeprint", paper);
    window.addEventListener("afterprint", again);
    return () => {
      light.disconnect();
      deviceLight();
      document.fonts.removeEventListener("loadingdone", again);
      window.removeEventListener("resize", again);
      window.removeEventListener("beforeprint", paper);
      window.removeEventListener("afterprint", again);
    };
  }, [paintNow]);
}

/**
 * A day at the pots: one wick's line a pot, thick where hands work, striped where it stands on the heat, thin where it only
 * waits; above them the people of all together, in which nothing may lie on anything; below them who has which burner and pitcher, and how
 * warm every pot is, all on one clock. Painted as one picture, so that a week's pots keep no frame waiting.
 */
export const Timetable = memo(function Timetable({ rows, begin, lit, label, chores, breaks, lanes, heats, onMove }: TimetableProps) {
  const units = useUnits();
  const { ref, width } = useWidth<HTMLDivElement>(900);
  const canvas = useRef<HTMLCanvasElement>(null);
  const held = useRef<{ grip: Grip; from: number; by: number } | null>(null);
  const clock = useCallback((minutes: number) => units.clock(new Date(Date.parse(begin) + minutes * 60_000).toISOString()), [units, begin]);
  const draw = useCallback(
    (moved: Moved | null): Picture =>
      pictureOf(
        { rows, lit, ...(chores ? { chores } : {}), ...(breaks ? { breaks } : {}), ...(lanes ? { lanes } : {}), ...(heats ? { heats } : {}) },
        width,
        { clock, t: units.t },
        moved,
      ),
    [rows, lit, chores, breaks, lanes, heats, width, clock, units.t],
  );
  const picture = useMemo(() => draw(null), [draw]);
  const paintNow = useCallback((fineness: number) => canvas.current && paint(canvas.current, picture, fineness), [picture]);
  useEffect(() => (canvas.current ? paintSoon(canvas.current, picture, window.devicePixelRatio) : undefined), [picture]);
  useRepaint(paintNow);
  const said = useMemo(
    () =>
      rows
        .map((row) => `pot ${row.number}, ${row.name}: ${row.steps.map((step) => `${step.name} ${clock(step.start)} to ${clock(step.end)}`).join(", ")}`)
        .join("; "),
    [rows, clock],
  );

  const at = (event: PointerEvent<HTMLCanvasElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return gripAt(picture, event.clientX - box.left, event.clientY - box.top);
  };
  const letGo = () => {
    held.current = null;
    paintNow(window.devicePixelRatio);
  };
  const grab = onMove && {
    onPointerDown: (event: PointerEvent<HTMLCanvasElement>) => {
      const grip = at(event);
      if (!grip) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      held.current = { grip, from: event.clientX, by: 0 };
    },
    onPointerMove: (event: PointerEvent<HTMLCanvasElement>) => {
      const now = held.current;
      if (!now) {
        event.currentTarget.style.cursor = at(event) ? "ew-resize" : "";
        return;
      }
      const by = Math.round((event.clientX - now.from) / picture.perMinute);
      if (by === now.by) return;
      now.by = by;
      paint(event.currentTarget, draw({ row: now.grip.row, step: now.grip.step, by }), window.devicePixelRatio);
    },
    onPointerUp: () => {
      const now = held.current;
      letGo();
      if (now && now.by !== 0) onMove(now.grip.row, now.grip.step, Math.max(0, now.grip.start + now.by));
    },
    onPointerCancel: letGo,
  };
  return (
    <div ref={ref} className="w-full min-w-0 overflow-hidden bg-sheet select-none" role="img" aria-label={`${label}. ${said}`}>
      <canvas
        ref={canvas}
        className="block print:h-auto! print:w-full!"
        // A finger that goes up or down moves the page; one that goes across moves the step.
        style={{ width, height: picture.height, touchAction: "pan-y" }}
        {...grab}
      />
    </div>
  );
});
