"use client";

import { isOnBurner, type Message, type Progress, recordedBy, targetOf } from "@hearth/core";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Batch, Instrument } from "@/log/use-batch";
import { useWorkshop } from "@/log/workshop";
import { sound } from "@/ui/sound";
import { useUnits } from "@/ui/units";
import { useStableCallback } from "@/ui/use-stable-callback";
import { notice, press } from "@/ui/variants";
import { FromLogger } from "./from-logger";
import { hasSerial, type Line, openSerial, openSimulated } from "./line-in";
import { SPEEDS, type Speed } from "./rehearsal";
import { openRehearsal } from "./rehearsal-line";

type Source = "serial" | "probe" | "scale" | "rehearsal";
/** What was said last, and when by the page's monotonic clock, in ms. */
interface Heard {
  message: Message;
  at: number;
}
type Listening = { is: "off"; message: string } | { is: "on"; source: Source; name: string; heard: Heard | null };

/** An instrument that says nothing for longer is silent: its battery is empty, or a cable is pulled. What it said before is no reading any more. */
const SILENT_AFTER_MS = 5_000;

/** For how many seconds an instrument has been silent; 0 where it speaks. Calls once by sound when it falls silent. */
function useSilence(heard: Heard | null): number {
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    setSeconds(0);
    if (!heard) return;
    let called = false;
    const timer = setInterval(() => {
      const silent = performance.now() - heard.at;
      if (silent < SILENT_AFTER_MS) return;
      if (!called) sound(1);
      called = true;
      setSeconds(Math.floor(silent / 1_000));
    }, 1_000);
    return () => clearInterval(timer);
  }, [heard]);
  return seconds;
}

/** So often a reading is logged where the probe is left to itself, in seconds. */
const EVERY = [10, 30, 60] as const;

interface InstrumentsProps {
  batch: Batch;
  prompt: Progress | null;
  instruments: Instrument[];
  /** A rehearsal has its own pot and probe. */
  rehearsal?: Speed;
}

/** Does to the simulated pot of a rehearsal what is recorded of it: heat, oil, stirring. */
function useSimulatedInstruments(batch: Batch, prompt: Progress | null, tell: (text: string) => void, on: boolean): void {
  const { plan, state } = batch;
  const heats = on && prompt !== null && (isOnBurner(prompt) || state.onHeat !== null);
  const added = recordedBy(plan.process.steps, "add_c").filter((step) => state.reads[step.id]).length;
  const stirred = Object.keys(state.did).length;
  const oil = (plan.pots[0]?.components ?? []).reduce((sum, part) => sum + (part.kind === "fragrance" ? part.mg / 1_000 : 0), 0);
  const seen = useRef({ added, stirred });
  useEffect(() => {
    if (on) tell(heats ? "HEAT 1" : "HEAT 0");
  }, [on, heats, tell]);
  useEffect(() => {
    if (!on) return;
    if (added > seen.current.added) tell(`OIL ${Math.round(oil)}`);
    if (added > seen.current.added || stirred > seen.current.stirred) tell("STIR");
    seen.current = { added, stirred };
  }, [on, added, stirred, oil, tell]);
}

/** Listens to an instrument: what it says, how long it has been silent, what is recorded of it by a tap or by itself. */
function useInstrument({ batch, prompt, instruments, rehearsal }: InstrumentsProps) {
  const { workshopId } = useWorkshop();
  const [lineState, setState] = useState<Listening>({ is: "off", message: "" });
  const [every, setEvery] = useState(0);
  const [tool, setTool] = useState("");
  const line = useRef<Line | null>(null);
  const speed = useRef(rehearsal?.speed ?? 1);
  speed.current = rehearsal?.speed ?? 1;
  const massG = (batch.plan.pots[0]?.totalMg ?? 1_000_000) / 1_000;
  useEffect(() => () => line.current?.stop(), []);
  const stop = (message = "") => {
    line.current?.stop();
    line.current = null;
    setEvery(0);
    setState({ is: "off", message });
  };
  const start = async (source: Source) => {
    stop();
    const heard = {
      onMessage: (message: Message) =>
        setState((old) =>
          old.is === "off" ? old : message.is === "name" ? { ...old, name: message.name } : { ...old, heard: { message, at: performance.now() } },
        ),
      onEnd: (why: string) => stop(why),
    };
    try {
      line.current =
        source === "rehearsal"
          ? openRehearsal({ massG, celsius: (batch.marks.at(-1)?.celsius ?? 2_100) / 100 }, () => speed.current, heard.onMessage)
          : await (source === "serial" ? openSerial(heard) : openSimulated(workshopId, source, heard));
      setState({ is: "on", source, name: source === "rehearsal" ? "simulated probe" : "", heard: null });
    } catch (error) {
      setState({ is: "off", message: source === "serial" ? "No instrument was chosen, or it is in use elsewhere." : (error as Error).message });
    }
  };
  const tell = useCallback((text: string) => void line.current?.tell(text), []);
  const begin = useStableCallback(() => void start("rehearsal"));
  const rehearses = rehearsal !== undefined;
  useEffect(() => {
    if (rehearses) begin();
  }, [rehearses, begin]);
  useSimulatedInstruments(batch, prompt, tell, rehearses && lineState.is === "on");
  const heard = lineState.is === "on" ? lineState.heard : null;
  const silent = useSilence(heard);
  const message = silent > 0 ? null : (heard?.message ?? null);
  // Which kind of instrument it is holds on while it is silent.
  const last = heard?.message;
  const isScale = last?.is === "weight" || (last?.is === "fault" && last.of === "scale");
  const tools = instruments.filter((instrument) => isScale === (instrument.kind === "scale"));
  const chosen = tools.find((instrument) => instrument.id === tool) ?? tools[0];
  const weighs = prompt?.entry === "weighed" && prompt.component !== undefined;
  const take = (message: Message, byItself: boolean) => {
    if (message.is === "temperature")
      return batch.record({
        // What is written by itself is a look: it says no step done.
        kind: "read",
        payload: { step: !byItself && prompt?.entry === "read" ? prompt.step : null, shown: message.celsius, correction: chosen?.correction ?? 0 },
        instrumentId: chosen?.id ?? null,
      });
    if (message.is === "weight" && weighs && prompt?.component && message.mg > 0)
      return batch.record({
        kind: "weighed",
        payload: { pot: prompt.pot, componentId: prompt.component.id, mg: message.mg },
        instrumentId: chosen?.id ?? null,
      });
    return null;
  };
  const newest = useRef({ heard, take });
  newest.current = { heard, take };
  useEffect(() => {
    if (!every) return;
    const timer = setInterval(() => {
      const { heard: last, take: put } = newest.current;
      if (last?.message.is === "temperature" && performance.now() - last.at < SILENT_AFTER_MS) void put(last.message, true);
    }, every * 1_000);
    return () => clearInterval(timer);
  }, [every]);
  return {
    batch,
    prompt,
    instruments,
    rehearsal,
    state: lineState,
    start,
    stop,
    tell,
    silent,
    message,
    last,
    tools,
    chosen,
    setTool,
    weighs,
    take,
    every,
    setEvery,
  };
}
type ListeningState = ReturnType<typeof useInstrument>;

/** The ways to connect an instrument, while none is. */
function Connect({ start, message, batch, instruments }: Pick<ListeningState, "start" | "batch" | "instruments"> & { message: string }) {
  return (
    <section aria-label="Instruments" className="mt-3 border-t border-line pt-2">
      <h3 className="text-[17px]">Connect an instrument</h3>
      <div className="mt-1 flex flex-wrap gap-2">
        {hasSerial() ? (
          <button type="button" className="press" onClick={() => void start("serial")}>
            Connect by cable
          </button>
        ) : null}
        <button type="button" className="press" onClick={() => void start("probe")}>
          Simulated probe
        </button>
        <button type="button" className="press" onClick={() => void start("scale")}>
          Simulated scale
        </button>
      </div>
      {message ? <p className={notice({ size: "small", className: "mt-2" })}>▲ {message}</p> : null}
      <FromLogger batch={batch} instruments={instruments} />
    </section>
  );
}

/** What the instrument shows, large, or that it shows nothing. */
function Shown({ name, silent, message }: { name: string } & Pick<ListeningState, "silent" | "message">) {
  const units = useUnits();
  return (
    <div className="min-w-[210px]" role="status">
      <div className="text-[15px] text-soft">{name || "connected"}</div>
      {silent > 0 ? (
        <span className="text-[20px] font-bold text-hot">▲ nothing heard for {silent} s: look at its battery and cable</span>
      ) : message === null ? (
        <span className="text-soft">listening…</span>
      ) : message.is === "fault" ? (
        <span className="text-[20px] font-bold text-hot">▲ {message.of === "scale" ? "over the scale's capacity" : "sensor disconnected"}</span>
      ) : message.is === "temperature" ? (
        <>
          <span className="figure text-[52px] leading-none">{units.tParts(message.celsius).figure}</span>
          <span className="figure text-[22px]"> °{units.temperature}</span>
          <span className={message.settled ? "text-inside" : "text-soft"}> {message.settled ? "✓ stable" : "… not stable"}</span>
        </>
      ) : message.is === "weight" ? (
        <>
          <span className="figure text-[52px] leading-none">{units.gParts(message.mg).figure}</span>
          <span className="figure text-[22px]"> {units.mass}</span>
          <span className={message.settled ? "text-inside" : "text-soft"}> {message.settled ? "✓ stable" : "… not stable"}</span>
        </>
      ) : null}
    </div>
  );
}

/** Which instrument of the shelf it is, how often it is read by itself, and tare. */
function Options({ tools, chosen, setTool, last, every, setEvery, message, tell }: ListeningState) {
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2 text-[15px]">
      {tools.length > 0 ? (
        <label>
          It is{" "}
          <select className="entry !w-auto" value={chosen?.id ?? ""} onChange={(event) => setTool(event.target.value)}>
            {tools.map((tool) => (
              <option key={tool.id} value={tool.id}>
                {tool.name}
              </option>
            ))}
          </select>
        </label>
      ) : null}
      {last?.is === "temperature" || (last?.is === "fault" && last.of === "thermometer") ? (
        <label>
          Auto-record{" "}
          <select className="entry !w-auto" value={every} onChange={(event) => setEvery(Number(event.target.value))}>
            <option value={0}>never</option>
            {EVERY.map((item) => (
              <option key={item} value={item}>
                every {item} s
              </option>
            ))}
          </select>
        </label>
      ) : null}
      {message?.is === "weight" ? (
        <button type="button" className="press" onClick={() => tell("Z")}>
          Tare
        </button>
      ) : null}
    </div>
  );
}

/** What can be done to a simulated pot or scale. */
function Simulated({ isScale, batch, prompt, weighs, tell }: ListeningState & { isScale: boolean }) {
  const units = useUnits();
  const missing = weighs && prompt?.component ? Math.max(0, targetOf(batch.state, prompt.pot, prompt.component) - prompt.given) : 0;
  return (
    <fieldset className="mt-2 flex flex-wrap items-center gap-2 text-[15px]">
      <legend className="text-soft">The simulated {isScale ? "scale" : "pot"}</legend>
      {(!isScale
        ? [
            ["Heat on", "HEAT 1"],
            ["Heat off", "HEAT 0"],
            ["Stir", "STIR"],
            [`Add ${units.say("{100 g|4 oz}")} of oil`, `OIL ${units.mass === "g" ? 100 : 113.4}`],
          ]
        : [
            ...(units.mass === "g"
              ? [
                  ["Add 10 g", "PUT 10"],
                  ["Add 100 g", "PUT 100"],
                ]
              : [
                  ["Add 1 oz", "PUT 28.35"],
                  ["Add 4 oz", "PUT 113.4"],
                ]),
            ...(missing > 0 ? [[`Add ${units.g(missing)}`, `PUT ${(missing / 1_000).toFixed(1)}`]] : []),
            ["Empty it", "PUT -99999"],
          ]
      ).map(([label = "", text = ""]) => (
        <button key={text} type="button" className={press({ size: "small" })} onClick={() => tell(text)}>
          {label}
        </button>
      ))}
    </fieldset>
  );
}

/** A connected thermometer or scale: what it shows, large, and one tap to take it; or it writes by itself. */
export function Instruments(props: InstrumentsProps) {
  const units = useUnits();
  const instrument = useInstrument(props);
  const { state: lineState, silent, message, weighs, take, rehearsal, stop } = instrument;
  if (lineState.is === "off") return <Connect {...instrument} message={lineState.message} />;
  return (
    <section aria-label="Instruments" className="mt-3 border-t border-line pt-2">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <Shown name={lineState.name} silent={silent} message={message} />
        {message?.is === "temperature" || (message?.is === "weight" && weighs) ? (
          <button type="button" className={press({ size: "gloved" })} disabled={!message.settled} onClick={() => void take(message, false)}>
            Take {message.is === "temperature" ? units.t(message.celsius) : units.g(message.mg)}
          </button>
        ) : null}
        {rehearsal ? (
          <label>
            speed{" "}
            <select className="entry !w-auto" value={rehearsal.speed} onChange={(event) => rehearsal.setSpeed(Number(event.target.value))}>
              {SPEEDS.map((speed) => (
                <option key={speed} value={speed}>
                  {speed} ×
                </option>
              ))}
            </select>
          </label>
        ) : (
          <button type="button" className="press" onClick={() => stop()}>
            Disconnect
          </button>
        )}
      </div>
      <Options {...instrument} />
      {lineState.source === "serial" ? null : <Simulated {...instrument} isScale={lineState.source === "scale"} />}
    </section>
  );
}
