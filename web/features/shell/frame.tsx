"use client";

import { concerns, type Role, topicsOfPage, writeDuration, type ZoneOffsets } from "@hearth/core";
import { useSearchParams } from "next/navigation";
import { type ReactNode, useEffect, useLayoutEffect, useRef, useState } from "react";
import { heardRecently, markRead, subscribeToOthers } from "@/log/live";
import { Outbox } from "@/log/outbox-strip";
import { STILL_IN, signOutDevice } from "@/log/sign-out";
import { WorkshopProvider } from "@/log/workshop";
import { forgetPages, Offline } from "@/offline/offline";
import { chooseLight, choosePerson, chooseWorkshop } from "@/server/workshops/choice-commands";
import { Addressed, Link, usePathname, useRouter } from "@/ui/address";
import type { Light } from "@/ui/chosen-light";
import { Keys, useKeys } from "@/ui/keys";
import { useLight } from "@/ui/light";
import type { Section } from "@/ui/section";
import { Toasts, toast } from "@/ui/toast";
import { Ground, type Units, useClock, useNow, useUnits } from "@/ui/units";
import { useStableCallback } from "@/ui/use-stable-callback";
import { notice } from "@/ui/variants";
import { Find } from "./find";
import { Pick } from "./pick";

interface FrameProps {
  sections: Section[];
  units: Units;
  offsets: ZoneOffsets;
  now: string;
  /** Of which history of the database the page is. */
  epoch: string;
  /** How far the server had heard of the workshop before it read this page. */
  mark: string | null;
  frozen: boolean;
  workshop: { id: string; name: string };
  workshops: { id: string; name: string }[];
  people: { id: string; name: string }[];
  person: string | null;
  /** By what it is known who works here; alone on a machine, whoever it is says so. */
  known: "alone" | "account" | "device";
  role: Role;
  /** As chosen by hand; null if it follows the device. */
  light: Light | null;
  /** When the workshop is deleted; null if it stays. */
  leavesAt: string | null;
  waiting: Partial<Record<string, number>>;
  children: ReactNode;
}

/** The sections that begin a group: stock and recipes, making, burn tests, sales, and what was learned. */
const BEGINS_GROUP = new Set(["/shelf", "/plan", "/burn", "/sell", "/records"]);

/** The sections stand like wicks along one line of wax; the lit one is where you are. */
function WickLine({ sections, waiting }: Pick<FrameProps, "sections" | "waiting">) {
  // On a narrow screen the lit section is scrolled into view, and a mark at the edge says that the line goes on.
  const line = useRef<HTMLElement>(null);
  const [goesOn, setGoesOn] = useState(false);
  const measure = useStableCallback(() => {
    const nav = line.current;
    if (nav) setGoesOn(nav.scrollLeft + nav.clientWidth < nav.scrollWidth - 8);
  });
  useEffect(() => {
    window.addEventListener("resize", measure);
    return () => window.removeEventListener("resize", measure);
  }, [measure]);
  const path = usePathname();
  const lit = sections.findLast((section) => (section.path === "/" ? path === "/" : path.startsWith(section.path)))?.path;
  useEffect(() => {
    const link = line.current?.querySelector<HTMLElement>("[aria-current=page]");
    line.current?.scrollTo({ left: (link?.offsetLeft ?? 0) - 60 });
    measure();
  }, [lit, measure]);
  return (
    <div className="relative">
      <nav ref={line} aria-label="Sections" className="relative overflow-x-auto" onScroll={measure}>
        <ol className="flex min-w-max border-b-4 border-ink lg:min-w-0">
          {sections.map((section) => {
            const isCurrent = section.path === lit;
            const count = waiting[section.path] ?? 0;
            return (
              <li key={section.path} className={`flex-auto ${BEGINS_GROUP.has(section.path) ? "border-l-2 border-line" : ""}`}>
                <Link
                  href={section.path}
                  aria-current={isCurrent ? "page" : undefined}
                  className={`group relative flex h-[44px] lg:h-[58px] items-end gap-2 pr-2 pb-[10px] pl-5 whitespace-nowrap lg:gap-[3px] lg:pr-[2px] lg:pl-[14px] lg:text-[14px] 2xl:gap-2 2xl:pr-2 2xl:pl-5 2xl:text-[16px] no-underline hover:bg-wax ${isCurrent ? "font-bold" : ""}`}
                >
                  <svg
                    width="14"
                    viewBox="0 0 14 56"
                    preserveAspectRatio="xMidYMin slice"
                    aria-hidden="true"
                    className="absolute bottom-0 h-[42px] lg:h-[56px] left-1 lg:left-0 2xl:left-1"
                  >
                    <line x1="7" x2="7" y1={isCurrent ? 20 : 38} y2="56" stroke="var(--color-ink)" strokeWidth="3" />
                    {isCurrent ? (
                      <path d="M7 0 C11 7 13 10 13 14 A6 6 0 0 1 1 14 C1 10 4 7 7 0 Z" fill="var(--color-action)" stroke="var(--color-ink)" strokeWidth="1.5" />
                    ) : null}
                  </svg>
                  <span>{section.name}</span>
                  {count > 0 ? (
                    <span className="figure mb-[1px] bg-ink px-[6px] text-[15px] text-sheet lg:px-[4px] lg:text-[13px] 2xl:px-[6px] 2xl:text-[15px]">
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
      {goesOn ? (
        <button
          type="button"
          tabIndex={-1}
          aria-hidden="true"
          className="absolute inset-y-0 right-0 w-11 border-b-4 border-ink bg-sheet text-[22px] font-bold"
          onClick={() => line.current?.scrollBy({ left: line.current.clientWidth - 80 })}
        >
          ›
        </button>
      ) : null}
    </div>
  );
}

/** Goes to the next step of the page: to what is marked as it, or to the first field within. */
function goToNextStep(): void {
  const next = document.querySelector<HTMLElement>("[data-next-step]:not(:disabled)");
  const target = next?.matches("a, button, input, select, textarea") ? next : next?.querySelector<HTMLElement>("input, select, textarea, button");
  target?.focus();
}

function SectionKeys({ sections }: Pick<FrameProps, "sections">) {
  const router = useRouter();
  useKeys([
    ...sections.map((section) => ({ key: section.key, does: `go to ${section.name}`, run: () => router.push(section.path) })),
    { key: "n", does: "go to the next required field", run: goToNextStep },
  ]);
  return null;
}

/** What stands under the name of who works here. */
const LEADS_TO = {
  alone: [],
  account: [
    { value: "account", name: "Your account…" },
    { value: "sign-out", name: "Sign out" },
  ],
  device: [{ value: "nobody", name: "Switch person…" }],
} as const;

/** Pages of one batch, trial or order keep themselves up to date, entry by entry. */
const KEEPS_UP = /^\/(bench|rack|inspect|records|burn|sell)\/[0-9a-f-]{36}$/;
/** A page is read again at most so often: several changes within that time are one. */
const PAGE_PAUSE_MS = 2_000;
/** A day that turned while the server was away is read so much later. */
const DAY_TRY_MS = 30_000;
/** What was told while a list was still being read may not be in it. */
const READING_MS = 5_000;

/** Returns whether the server and its database answer: only then is a page read again. */
const isWell = (): Promise<boolean> =>
  fetch("/api/health").then(
    (answer) => answer.ok,
    () => false,
  );

/** Reads a page again when somebody changed something that it shows; while nobody sees it, once it is seen again. */
function KeepUp({ workshopId, mark }: { workshopId: string; mark: string | null }) {
  const router = useRouter();
  const path = usePathname();
  // Before any part of the page begins to listen.
  useLayoutEffect(() => markRead(workshopId, mark), [workshopId, mark]);
  useEffect(() => {
    if (KEEPS_UP.test(path)) return;
    let timer: ReturnType<typeof setTimeout> | null = null;
    let last = Date.now();
    let left = false;
    let typed = false;
    const type = ({ target }: Event) => {
      if (target instanceof Element && target.closest("main")) typed = true;
    };
    document.addEventListener("input", type);
    const shown = topicsOfPage(path);
    let missed = false;
    // A change that is told by its workshop comes from the database. After a stream broke off it may be away, and the page stays as it is.
    let unsure = false;
    const readAgain = (isUnsure: boolean) => {
      unsure ||= isUnsure;
      if (document.hidden) {
        missed = true;
        return;
      }
      if (timer) return;
      timer = setTimeout(
        async () => {
          const well = !unsure || (await isWell());
          timer = null;
          // What is being typed in is left alone, and its save says what changed.
          if (left || typed) return;
          last = Date.now();
          if (!well) return readAgain(true);
          unsure = false;
          router.refresh();
        },
        Math.max(150, last + PAGE_PAUSE_MS - Date.now()),
      );
    };
    const see = () => {
      if (document.hidden || !missed) return;
      missed = false;
      readAgain(false);
    };
    document.addEventListener("visibilitychange", see);
    const leave = subscribeToOthers(workshopId, (change) => {
      if (concerns(change, shown)) readAgain(change.workshop === "*");
    });
    if (heardRecently(READING_MS, shown)) readAgain(false);
    return () => {
      left = true;
      document.removeEventListener("visibilitychange", see);
      document.removeEventListener("input", type);
      leave();
      if (timer) clearTimeout(timer);
    };
  }, [workshopId, path, router]);
  return null;
}

/** Reads the page again when the workshop's day turns: what is due, late or soon is another then. */
function TurnDay() {
  const router = useRouter();
  const units = useUnits();
  const day = units.isoDay(useNow(30_000));
  const read = useRef(day);
  useEffect(() => {
    if (read.current === day) return;
    let left = false;
    const turn = async () => {
      const well = await isWell();
      if (left) return;
      if (!well) return void setTimeout(turn, DAY_TRY_MS);
      read.current = day;
      router.refresh();
    };
    void turn();
    return () => {
      left = true;
    };
  }, [day, router]);
  return null;
}

/** Says why somebody was led here from a page that is not for them. */
function NotYours() {
  const not = useSearchParams().get("not");
  if (!not) return null;
  return (
    <p role="status" className={notice({ tone: "cool", place: "strip" })}>
      “{not}” is not available to you. Ask the workshop's owner for access.
    </p>
  );
}

/** Whoever may only see says so before something is typed that would be refused. */
function LooksOn({ role }: { role: Role }) {
  if (role !== "viewer") return null;
  return (
    <p role="status" className={notice({ tone: "cool", place: "strip" })}>
      View only: you can see everything and change nothing. Ask the workshop's owner for edit access.
    </p>
  );
}

/** A workshop that goes says so on every page of it. */
function Leaving({ at }: { at: string | null }) {
  const units = useUnits();
  if (!at) return null;
  return (
    <p role="status" className={notice({ place: "strip" })}>
      ▲ This workshop will be deleted on {units.dayClock(at)}. <Link href="/people">Cancel the deletion, or download everything</Link>
    </p>
  );
}

/** Tells a device whose clock is wrong. */
function ClockNotice() {
  const { isOff, aheadMs, jumpedMs } = useClock();
  if (jumpedMs !== 0)
    return (
      <p role="status" className={notice({ place: "strip" })}>
        ▲ This device's clock moved {jumpedMs > 0 ? "forward" : "back"} by {writeDuration(Math.abs(jumpedMs) / 1_000)} while the workshop cannot be reached.
        Entries use the earlier time: check them if the device was asleep.
      </p>
    );
  if (!isOff) return null;
  return (
    <p role="status" className={notice({ place: "strip" })}>
      ▲ This device's clock is {writeDuration(Math.abs(aheadMs) / 1_000)} {aheadMs > 0 ? "slow" : "fast"}. Entries use the workshop's time, and record the
      device's time too.
    </p>
  );
}

export function Frame(props: FrameProps) {
  const router = useRouter();
  const { workshop, workshops, people, person } = props;
  const isDark = useLight(props.light) === "evening";
  return (
    <Ground units={props.units} offsets={props.offsets} now={props.now} frozen={props.frozen}>
      <Addressed base={`/w/${workshop.id}`} role={props.role}>
        <WorkshopProvider place={{ workshopId: workshop.id, personId: person }}>
          <Keys>
            <a href="#work" className="press sr-only focus:not-sr-only focus:absolute focus:z-50">
              Skip to the content
            </a>
            <header className="unprinted flex flex-wrap items-end gap-x-3 bg-sheet px-4 sm:px-8 lg:flex-nowrap lg:gap-x-4 lg:pt-2">
              <div className="max-lg:min-w-0 max-lg:flex-1 lg:pb-2">
                <div className="figure text-[21px] leading-none max-lg:hidden">Hearth Jar</div>
                <Pick
                  label="Workshop"
                  className="-ml-1 min-h-[44px] max-w-full px-1 text-[14px] text-soft lg:min-h-[28px] lg:max-w-[210px]"
                  value={workshop.id}
                  options={[
                    ...workshops.map((workshop) => ({ value: workshop.id, name: workshop.name })),
                    ...(props.role === "owner" ? [{ value: "people", name: "People and devices…" }] : []),
                    ...(props.known === "device" ? [] : [{ value: "more", name: "Workshops, units and prices…" }]),
                  ]}
                  onValue={async (value) => {
                    if (value === "more") return router.push("/workshops");
                    if (value === "people") return router.push("/people");
                    await chooseWorkshop(value);
                    forgetPages();
                    router.push(`/w/${value}`);
                  }}
                />
              </div>
              <div className="min-w-0 flex-1 max-lg:order-last max-lg:basis-full">
                <WickLine sections={props.sections} waiting={props.waiting} />
              </div>
              <div className="flex items-center gap-2 max-lg:ml-auto lg:pb-2">
                <Find sections={props.sections} />
                <Pick
                  label="Who is working"
                  className="min-h-[44px] max-w-[130px] border-2 border-line bg-sheet px-2 lg:min-h-[36px]"
                  value={person ?? ""}
                  options={[
                    ...people.filter((item) => props.known === "alone" || item.id === person).map((item) => ({ value: item.id, name: item.name })),
                    ...LEADS_TO[props.known],
                    { value: "light", name: isDark ? "Light mode" : "Dark mode" },
                  ]}
                  empty="nobody yet"
                  onValue={async (value) => {
                    if (value === person) return;
                    if (value === "light") {
                      await chooseLight(isDark ? "day" : "evening");
                      return router.refresh();
                    }
                    if (value === "account") return location.assign("/account");
                    if (value === "sign-out" || value === "nobody") return void signOutDevice(value).then((left) => left || toast(STILL_IN));
                    await choosePerson(value);
                    forgetPages();
                    router.refresh();
                  }}
                />
              </div>
            </header>
            <SectionKeys sections={props.sections} />
            <KeepUp workshopId={workshop.id} mark={props.mark} />
            <Leaving at={props.leavesAt} />
            <LooksOn role={props.role} />
            <NotYours />
            <ClockNotice />
            <Offline />
            <TurnDay />
            <Outbox epoch={props.epoch} />
            {props.children}
            <Toasts />
          </Keys>
        </WorkshopProvider>
      </Addressed>
    </Ground>
  );
}
