"use client";

import { useSearchParams } from "next/navigation";
import { useEffect, useId, useRef, useState, useTransition } from "react";
import { Link, usePathname, useRouter } from "@/ui/address";
import { FilterSelect } from "./filter-select";
import { WhenFilter, type WhenProps } from "./when-filter";

export interface Filter {
  /** Its name in the address. */
  key: string;
  label: string;
  options: readonly { value: string; label: string }[];
}

/** The filters of a long list, as its page provides them. */
export interface ListFilters {
  when: WhenProps;
  more: readonly Filter[];
}

/** Props of a long list: its next pages, its filters, and whether any is set. */
export interface LongListProps {
  older: string | null;
  newer: string | null;
  narrowed: boolean;
  filters: ListFilters;
}

/** The choice between what is in use and what is archived. */
export const PUT_AWAY: Filter = {
  key: "away",
  label: "Show",
  options: [
    { value: "", label: "in use" },
    { value: "1", label: "put away" },
  ],
};

/** A list of fewer rows is short. */
const SHORT = 12;

/** Letters typed in one go are asked for once. */
const PAUSE_MS = 180;

/** Returns the address of this list with some of its filters changed; a changed filter begins at the first page. */
function addressOf(path: string, query: URLSearchParams, change: Record<string, string>): string {
  const next = new URLSearchParams(query);
  for (const key of ["page", "after", "before"]) if (!(key in change)) next.delete(key);
  for (const [key, value] of Object.entries(change)) {
    if (value === "") next.delete(key);
    else next.set(key, value);
  }
  const text = next.toString();
  return text ? `${path}?${text}` : path;
}

/** The search field and filters of a list; `more` filters stand behind a button. The address keeps what is chosen. */
export function FindBar({
  what,
  filters = [],
  more = [],
  when,
  found,
}: {
  what: string;
  filters?: readonly Filter[];
  more?: readonly Filter[];
  when?: WhenProps;
  found?: number | undefined;
}) {
  const id = useId();
  const path = usePathname();
  const router = useRouter();
  const query = useSearchParams();
  const asked = query.get("q") ?? "";
  const [text, setText] = useState(asked);
  const sent = useRef(asked);
  const [busy, start] = useTransition();
  const go = (change: Record<string, string>) => start(() => router.replace(addressOf(path, query, change), { scroll: false }));
  // Going back and forth in the browser brings its words along.
  useEffect(() => {
    if (asked === sent.current) return;
    sent.current = asked;
    setText(asked);
  }, [asked]);
  // Only what is typed starts the clock.
  useEffect(() => {
    if (text.trim() === sent.current) return;
    const timer = setTimeout(() => {
      sent.current = text.trim();
      go({ q: text.trim() });
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [text]);
  const isSet = (filter: Filter) => Boolean(query.get(filter.key));
  const narrowed = asked !== "" || Boolean(query.get("when")) || [...filters, ...more].some(isSet);
  const select = ({ key, label, options }: Filter) => (
    <FilterSelect key={key} label={label} options={options} value={query.get(key) ?? ""} onChange={(value) => go({ [key]: value })} />
  );
  // A list that is seen at a glance needs no more than a search.
  const isShort = !narrowed && found !== undefined && found < SHORT;
  return (
    <search className="unprinted mb-4 flex flex-wrap items-end gap-x-4 gap-y-2">
      <div className="min-w-[220px] flex-1 max-sm:order-[-2]">
        <label htmlFor={id} className="sr-only">
          Find in {what}
        </label>
        <input
          id={id}
          type="search"
          className="entry"
          placeholder={`Find in ${what}`}
          autoComplete="off"
          maxLength={100}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => event.key === "Escape" && setText("")}
        />
      </div>
      {filters.map(select)}
      {when && !isShort ? <WhenFilter {...when} go={(text) => go({ when: text })} /> : null}
      {more.length > 0 && !isShort ? (
        <details className="basis-full" open={more.some(isSet)}>
          <summary className="cursor-pointer py-1 font-semibold">More filters</summary>
          <div className="flex flex-wrap items-end gap-x-4 gap-y-2 pt-1">{more.map(select)}</div>
        </details>
      ) : null}
      <p className="pb-2 text-[15px] text-soft empty:hidden" role="status">
        {busy ? "looking" : narrowed && found !== undefined ? `${found === 0 ? "nothing" : found} found` : ""}
      </p>
    </search>
  );
}

/** The pages of a long list; nothing where one holds all of it. */
export function Pages({ page, pages }: { page: number; pages: number }) {
  const path = usePathname();
  const query = useSearchParams();
  if (pages <= 1) return null;
  const to = (n: number) => addressOf(path, query, { page: n <= 1 ? "" : String(n) });
  return (
    <nav aria-label="Pages" className="unprinted mt-4 flex flex-wrap items-center gap-3">
      {page > 1 ? (
        <Link className="press" href={to(page - 1)}>
          Previous page
        </Link>
      ) : null}
      <span>
        page <span className="figure text-[18px]">{page}</span> of <span className="figure text-[18px]">{pages}</span>
      </span>
      {page < pages ? (
        <Link className="press" href={to(page + 1)}>
          Next page
        </Link>
      ) : null}
    </nav>
  );
}

/** Links to the newer and older rows of a list; nothing where there are none. */
export function OlderNewer({ older, newer, what }: { older: string | null; newer: string | null; what: string }) {
  const path = usePathname();
  const query = useSearchParams();
  if (!older && !newer) return null;
  return (
    <nav aria-label="Pages" className="unprinted mt-4 flex flex-wrap gap-3">
      {newer ? (
        <Link className="press" href={addressOf(path, query, { before: newer, after: "" })}>
          Newer {what}
        </Link>
      ) : null}
      {older ? (
        <Link className="press" href={addressOf(path, query, { after: older, before: "" })}>
          Older {what}
        </Link>
      ) : null}
    </nav>
  );
}

/** The end of a list that is not shown whole: how many there are still, and the way to all of them; nothing where there are none. */
export const ShowAll = ({ left, href }: { left: number; href: string }) =>
  left > 0 ? (
    <p className="py-2 font-semibold">
      {left} more.{" "}
      <Link className="underline" href={href}>
        Show all
      </Link>
    </p>
  ) : null;

/** What is shown if a search or a filter leaves nothing. */
export function NothingFound({ what }: { what: string }) {
  const path = usePathname();
  return (
    <p className="py-4 text-soft">
      No {what} like that.{" "}
      <Link className="underline" href={path}>
        Show all
      </Link>
    </p>
  );
}
