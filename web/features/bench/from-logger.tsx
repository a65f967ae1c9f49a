"use client";

import { type LoggedReading, thinned } from "@hearth/core";
import { useState } from "react";
import { readLoggerFile } from "@/forms/logger-file";
import { LoggerColumn, LoggerInput } from "@/forms/logger-input";
import { useOutbox } from "@/log/outbox";
import type { Batch, Instrument } from "@/log/use-batch";
import { HeatLine } from "@/ui/heat-line";
import { useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";

/** So many readings of a file tell a pot's curve: the rest say the same. */
const MAX_SHOWN = 120;

interface Read {
  file: File;
  columns: { at: number; name: string }[];
  column: number;
  inside: LoggedReading[];
  outside: number;
  skipped: number;
  zoned: boolean;
}

/** The file of a temperature logger: shown against this pot before any of it is kept. */
export function FromLogger({ batch, instruments }: { batch: Batch; instruments: Instrument[] }) {
  const units = useUnits();
  const [read, setRead] = useState<Read | null>(null);
  const [message, setMessage] = useState("");
  /** How many of it this device keeps. */
  const [done, setDone] = useState<number | null>(null);
  const { waiting } = useOutbox();
  const waits = waiting.filter((entry) => entry.batchId === batch.id && entry.event.kind === "read").length;
  const tools = instruments.filter((instrument) => instrument.kind !== "scale");
  const [tool, setTool] = useState(tools[0]?.id ?? "");
  const chosen = tools.find((instrument) => instrument.id === tool);
  const take = async (file: File | undefined, column?: number) => {
    if (!file) return;
    setMessage("");
    setDone(null);
    setRead(null);
    const logged = await readLoggerFile(file, units, column);
    if (!logged.ok) return setMessage(logged.message);
    const { readings, skipped, zoned, columns } = logged;
    const [from, to] = [batch.state.startedAt, batch.pouredAt ?? batch.now];
    const inside = readings.filter((reading) => Date.parse(reading.at) >= Date.parse(from) && Date.parse(reading.at) <= Date.parse(to));
    if (inside.length === 0)
      return setMessage(
        `Its readings are from ${units.full(readings[0]?.at ?? from)} to ${units.full(readings.at(-1)?.at ?? to)}; this pot ran from ${units.full(from)} to ${units.full(to)}. Choose the right pot, or check the logger's clock.`,
      );
    setRead({ file, columns, column: logged.column, inside: thinned(inside, MAX_SHOWN), outside: readings.length - inside.length, skipped, zoned });
  };
  const keep = async () => {
    if (!read) return;
    await batch.recordMany(
      read.inside.map((loggedReading) => ({
        kind: "read",
        payload: { step: null, shown: loggedReading.celsius, correction: chosen?.correction ?? 0 },
        happenedAt: loggedReading.at,
        instrumentId: chosen?.id ?? null,
      })),
    );
    setDone(read.inside.length);
  };
  const warmths = read?.inside.map((loggedReading) => loggedReading.celsius) ?? [];
  return (
    <div className="mt-2">
      <LoggerInput label="Readings from a logger file" onFile={(file) => void take(file)} />
      {message ? <p className={notice({ size: "small", className: "mt-2" })}>▲ {message}</p> : null}
      {read ? (
        <div className="mt-2">
          <p>
            <strong>{read.file.name}</strong>: {read.inside.length} readings from {units.clock(read.inside[0]?.at ?? batch.now)} to{" "}
            {units.clock(read.inside.at(-1)?.at ?? batch.now)}, {units.t(Math.min(...warmths))} to {units.t(Math.max(...warmths))}
            {read.outside > 0 ? `; ${read.outside} outside this pot's time or repeated were left out` : ""}
            {read.skipped > 0 ? `; ${read.skipped} rows could not be read` : ""}.{read.zoned ? "" : " Its times are taken as workshop time."}
          </p>
          <HeatLine
            bands={batch.bands}
            ceiling={batch.plan.process.ceiling}
            marks={read.inside.map((loggedReading) => ({
              ...loggedReading,
              step: null,
              instrumentId: chosen?.id ?? null,
              instrumentKind: chosen?.kind ?? null,
            }))}
            height={170}
            label="The file"
          />
          {done === read.inside.length ? (
            <p role="status" className="font-semibold text-inside">
              ✓ {done} readings are logged{waits > 0 ? `; ${waits} of them wait on this device` : ""}
            </p>
          ) : (
            <div className="mt-1 flex flex-wrap items-center gap-3">
              <label className="text-[15px]">
                Recorded with{" "}
                <select className="entry !w-auto" value={tool} onChange={(event) => setTool(event.target.value)}>
                  {tools.map((tool) => (
                    <option key={tool.id} value={tool.id}>
                      {tool.name}
                    </option>
                  ))}
                  <option value="">not recorded</option>
                </select>
              </label>
              <LoggerColumn columns={read.columns} column={read.column} onColumn={(column) => void take(read.file, column)} />
              <button type="button" className="action-button" onClick={() => void keep()}>
                Log {read.inside.length} {read.inside.length === 1 ? "reading" : "readings"}
              </button>
              <button type="button" className="press" onClick={() => setRead(null)}>
                Cancel
              </button>
            </div>
          )}
        </div>
      ) : null}
    </div>
  );
}
