"use client";

import Link from "next/link";
import { usePathname, useRouter } from "next/navigation";
import type { ReactNode } from "react";
import { Keys, useKeys } from "@/ui/keys";
import { Ground, type Units } from "@/ui/units";
import { Outbox } from "../bench/outbox";
import { chooseLight, choosePerson, chooseWorkshop } from "./choose";

export const STATIONS = [
  { path: "/", name: "today", key: "t" },
  { path: "/shelf", name: "shelf", key: "s" },
  { path: "/formulas", name: "formulas", key: "f" },
  { path: "/plan", name: "plan", key: "p" },
  { path: "/bench", name: "bench", key: "b" },
  { path: "/rack", name: "rack", key: "r" },
  { path: "/look-over", name: "look-over", key: "l" },
  { path: "/records", name: "records", key: "c" },
] as const;

interface FrameProps {
  units: Units;
  now: string;
  frozen: boolean;
  workshop: { id: string; name: string };
  workshops: { id: string; name: string }[];
  people: { id: string; name: string }[];
  person: string | null;
  evening: boolean;
  waiting: Partial<Record<string, number>>;
  children: ReactNode;
}

/** The stations stand like wicks along one line of wax; the lit one is where you are. */
function WickLine({ waiting }: { waiting: FrameProps["waiting"] }) {
  // On a narrow screen the lit station is scrolled into view.
  const show = (link: HTMLElement | null) => link?.parentElement?.parentElement?.parentElement?.scrollTo({ left: link.offsetLeft - 60 });
  const path = usePathname();
  const lit = STATIONS.findLast((station) => (station.path === "/" ? path === "/" : path.startsWith(station.path)))?.path;
  return (
    <nav aria-label="Stations" className="relative overflow-x-auto max-lg:order-last max-lg:w-full">
      <ol className="flex min-w-max border-b-4 border-ink lg:min-w-0">
        {STATIONS.map((station) => {
          const here = station.path === lit;
          const count = waiting[station.path] ?? 0;
          return (
            <li key={station.path} className="flex-auto">
              <Link
                href={station.path}
                aria-current={here ? "page" : undefined}
                ref={here ? show : undefined}
                className={`group relative flex h-[58px] items-end gap-2 pr-2 pb-[10px] pl-5 whitespace-nowrap no-underline hover:bg-wax ${here ? "font-bold" : ""}`}
              >
                <svg width="14" height="44" viewBox="0 0 14 44" aria-hidden="true" className="absolute bottom-0 left-1">
                  <line x1="7" x2="7" y1={here ? 20 : 26} y2="44" stroke="var(--color-ink)" strokeWidth="3" />
                  {here ? (
                    <path d="M7 0 C11 7 13 10 13 14 A6 6 0 0 1 1 14 C1 10 4 7 7 0 Z" fill="var(--color-act)" stroke="var(--color-ink)" strokeWidth="1.5" />
                  ) : null}
                </svg>
                <span>{station.name}</span>
                {count > 0 ? (
                  <span className="figure mb-[1px] bg-ink px-[6px] text-[15px] text-sheet">
                    {count}
                    <span className="sr-only"> waiting</span>
                  </span>
                ) : null}
              </Link>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}

function StationKeys() {
  const router = useRouter();
  useKeys([
    ...STATIONS.map((station) => ({ key: station.key, does: `go to ${station.name}`, act: () => router.push(station.path) })),
    { key: "n", does: "go to the next step of this screen", act: () => document.querySelector<HTMLElement>("[data-next-step]")?.focus() },
  ]);
  return null;
}

export function Frame(props: FrameProps) {
  const router = useRouter();
  const { workshop, workshops, people, person, evening } = props;
  return (
    <Ground units={props.units} now={props.now} frozen={props.frozen}>
      <Keys>
        <a href="#work" className="press sr-only focus:not-sr-only focus:absolute focus:z-50">
          Go to the work
        </a>
        <header className="unprinted flex flex-wrap items-end gap-x-6 bg-sheet px-4 pt-2 sm:px-8 lg:flex-nowrap">
          <div className="pb-2">
            <div className="figure text-[21px] leading-none">Hearth Jar</div>
            <select
              aria-label="Workshop"
              className="-ml-1 max-w-[190px] bg-transparent text-[14px] text-soft"
              value={workshop.id}
              onChange={async (event) => {
                if (event.target.value === "more") return router.push("/workshops");
                await chooseWorkshop(event.target.value);
                router.push("/");
                router.refresh();
              }}
            >
              {workshops.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
              <option value="more">Workshops and units…</option>
            </select>
          </div>
          <div className="min-w-0 flex-1 max-lg:order-last max-lg:basis-full">
            <WickLine waiting={props.waiting} />
          </div>
          <div className="flex items-center gap-2 pb-2 max-lg:ml-auto">
            <select
              aria-label="Who is working"
              className="min-h-[36px] max-w-[120px] border-2 border-line bg-sheet px-1"
              value={person ?? ""}
              onChange={async (event) => {
                await choosePerson(event.target.value);
                router.refresh();
              }}
            >
              {people.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
              {people.length === 0 ? <option value="">nobody yet</option> : null}
            </select>
            <button
              type="button"
              className="min-h-[36px] border-2 border-line px-2 text-[14px]"
              aria-pressed={evening}
              onClick={async () => {
                await chooseLight(evening ? "day" : "evening");
                router.refresh();
              }}
            >
              {evening ? "Day light" : "Evening light"}
            </button>
          </div>
        </header>
        <StationKeys />
        <Outbox />
        {props.children}
      </Keys>
    </Ground>
  );
}
