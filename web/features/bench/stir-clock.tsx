"use client";

import { useEffect, useRef, useState } from "react";
import { useKeys } from "@/ui/keys";
import { sound } from "@/ui/sound";
import { press } from "@/ui/variants";

/** Stirring by the clock: start, stop, and a tone when the time is up. The time really stirred is handed on every second while it runs, and at the stop. */
export function StirClock({ seconds, onTime }: { seconds: number; onTime: (stirred: number) => void }) {
  const [since, setSince] = useState<number | null>(null);
  const [elapsed, setGone] = useState(0);
  const rang = useRef(false);
  const told = useRef(0);
  const tell = useRef(onTime);
  tell.current = onTime;
  useEffect(() => {
    if (since === null) return;
    const timer = setInterval(() => {
      const passed = (performance.now() - since) / 1_000;
      setGone(passed);
      const whole = Math.max(1, Math.round(passed));
      if (whole !== told.current) {
        told.current = whole;
        tell.current(whole);
      }
      if (passed >= seconds && !rang.current) {
        rang.current = true;
        sound();
      }
    }, 200);
    return () => clearInterval(timer);
  }, [since, seconds]);
  const toggle = () => {
    if (since === null) {
      rang.current = false;
      setGone(0);
      setSince(performance.now());
    } else {
      setSince(null);
      onTime(Math.max(1, Math.round((performance.now() - since) / 1_000)));
    }
  };
  useKeys([{ key: " ", does: "start or stop the stirring clock", run: toggle }]);
  const left = Math.max(0, Math.ceil(seconds - elapsed));
  const over = Math.floor(elapsed - seconds);
  return (
    <div className="flex flex-wrap items-center gap-5">
      <span className={`figure text-[84px] leading-none ${since !== null && left === 0 ? "text-inside" : ""}`} role="timer">
        {Math.floor(left / 60)}:{String(left % 60).padStart(2, "0")}
      </span>
      <button type="button" className={press({ size: "gloved" })} onClick={toggle}>
        {since === null ? "Start stirring" : "Stop and record"}
      </button>
      {since !== null && over > 0 ? <span className="font-semibold text-inside">✓ {over} s over</span> : null}
    </div>
  );
}
