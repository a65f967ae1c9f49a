"use client";

import { useState } from "react";
import type { Batch } from "@/log/use-batch";
import { useWorkshop } from "@/log/workshop";
import { FormMessage } from "@/ui/form-message";
import { Score } from "@/ui/score";
import { useWidth } from "@/ui/size";
import { SizedSvg } from "@/ui/sized-svg";
import { useUnits } from "@/ui/units";
import { daysAfter, nextAge, throwPoints } from "./model";

const HEIGHT = 170;
const LEFT = 34;

/** Scores over the cure, each scorer by its own line: one person's 9 is another's 7. */
function Curve({ points, least, best }: { points: ReturnType<typeof throwPoints>; least: number; best: number }) {
  const size = useWidth<HTMLDivElement>(420);
  const { width } = size;
  const last = Math.max(best, 2, ...points.flatMap((point) => point.scores.map((score) => score.days)));
  const x = (days: number) => LEFT + (days / last) * (width - LEFT - 70);
  const y = (score: number) => HEIGHT - 26 - (score / 10) * (HEIGHT - 40);
  return (
    <SizedSvg size={size} height={HEIGHT} label="Cold throw over the cure">
      <rect x={x(least)} y={y(10)} width={Math.max(0, x(best) - x(least))} height={y(0) - y(10)} fill="var(--color-wax)" />
      {[0, 5, 10].map((score) => (
        <g key={score}>
          <line x1={LEFT} x2={x(last)} y1={y(score)} y2={y(score)} stroke="var(--color-line)" />
          <text x={LEFT - 8} y={y(score) + 5} textAnchor="end" fontSize={14} fill="var(--color-ink)">
            {score}
          </text>
        </g>
      ))}
      {[0, least, best].map((days) => (
        <text key={days} x={x(days)} y={HEIGHT - 6} textAnchor="middle" fontSize={13} fill="var(--color-ink)">
          {days === 0 ? "poured" : `${Math.round(days * 10) / 10} d`}
        </text>
      ))}
      {points.map((point, index) => (
        <g key={point.nose}>
          <polyline
            points={point.scores.map((score) => `${x(score.days).toFixed(1)},${y(score.score).toFixed(1)}`).join(" ")}
            fill="none"
            stroke="var(--color-ink)"
            strokeWidth={2.5}
            strokeDasharray={["", "7 4", "2 4", "9 3 2 3"][index % 4]}
          />
          {point.scores.map((score) => (
            <circle key={score.at} cx={x(score.days)} cy={y(score.score)} r={4.5} fill="var(--color-ink)" />
          ))}
          <text x={x(point.scores.at(-1)?.days ?? 0) + 9} y={y(point.scores.at(-1)?.score ?? 0) + 5} fontSize={14} fill="var(--color-ink)">
            {point.nose}
          </text>
        </g>
      ))}
    </SizedSvg>
  );
}

/** Cold throw: scores at stated ages, by a named scorer in a named room. */
export function ColdThrow({ batch, people, rooms }: { batch: Batch; people: { id: string; name: string }[]; rooms: readonly string[] }) {
  const { personId } = useWorkshop();
  const units = useUnits();
  const { state, pouredAt, times, now } = batch;
  const [room, setRoom] = useState(rooms[0] ?? "");
  const [message, setMessage] = useState("");
  if (!pouredAt || !times) return null;
  const nose = people.find((item) => item.id === personId)?.name;
  const score = async (value: number) => setMessage((await batch.record({ kind: "smelled", payload: { score: value, room } }))?.message ?? "");
  const points = throwPoints(state, pouredAt, people);
  const next = nextAge(state, pouredAt, now);
  return (
    <section className="sheet" aria-label="Cold throw">
      <h2>Cold throw, {daysAfter(pouredAt, now).toFixed(1)} days after pouring</h2>
      {points.length > 0 ? (
        <Curve points={points} least={daysAfter(pouredAt, times.testFrom)} best={daysAfter(pouredAt, times.sellFrom)} />
      ) : (
        <p className="text-soft">No scent scores yet. Score at the same cure ages each time: at one day it can be faint, and good at two.</p>
      )}
      {next ? (
        <p className="mt-1">
          Score it at {next.days} {next.days === 1 ? "day" : "days"}:{" "}
          <strong>{Date.parse(next.at) <= Date.parse(now) ? "now" : units.dayClock(next.at)}</strong>
        </p>
      ) : null}
      <p className="mt-2 font-semibold">{nose ? `Score by ${nose}` : "Choose who is working first: scores are compared within one person."}</p>
      <Score disabled={!nose} onScore={(value) => void score(value)} />
      <label className="mt-2 block text-[15px]">
        Room <input className="entry !w-[180px]" list="rooms" maxLength={60} value={room} onChange={(event) => setRoom(event.target.value)} />
      </label>
      <datalist id="rooms">
        {["bathroom", "bedroom", "living room", ...rooms].map((text) => (
          <option key={text} value={text} />
        ))}
      </datalist>
      <FormMessage>{message}</FormMessage>
    </section>
  );
}
