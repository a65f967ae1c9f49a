"use client";

import { addDays, monthNames } from "@hearth/core";
import { useEffect, useId, useState } from "react";
import type { AskedDays } from "@/server/http/period";
import { Link } from "@/ui/address";
import { useUnits } from "@/ui/units";
import { FilterSelect } from "./filter-select";

/** The days that a list is narrowed to, and from which year on there is something. */
export interface WhenProps {
  asked: AskedDays | null;
  firstYear: number | null;
  /** Where the whole list is, from the end of these days back; null where the list is in no order of time. */
  around: string | null;
}

const ANY = { value: "", label: "any" };
const MONTHS = monthNames().map((label, index) => ({ value: String(index + 1).padStart(2, "0"), label }));

/** Narrows a list to days: in words, or by year and month. `go` gets the words. */
export function WhenFilter({ asked, firstYear, around, go }: WhenProps & { go: (when: string) => void }) {
  const id = useId();
  const units = useUnits();
  const askedText = asked?.text ?? "";
  const [text, setText] = useState(askedText);
  useEffect(() => setText(askedText), [askedText]);
  const thisYear = Number((units.today ?? new Date().toISOString()).slice(0, 4));
  const [, year = "", month = ""] = /^(\d{4})(?:-(\d{2}))?$/.exec(askedText) ?? [];
  const years = Array.from({ length: Math.max(1, thisYear - (firstYear ?? thisYear) + 1) }, (_, index) => String(thisYear - index));
  const isWrong = asked !== null && asked.days === null;
  const send = () => text.trim() !== askedText && go(text.trim());
  return (
    <>
      <form
        className="min-w-[190px] max-sm:order-[-1] max-sm:basis-full"
        onSubmit={(event) => {
          event.preventDefault();
          send();
        }}
      >
        <label htmlFor={id} className="block text-[14px] text-soft">
          When
        </label>
        <input
          id={id}
          className="entry !min-h-[40px] !py-0"
          placeholder="last spring, March 2021"
          autoComplete="off"
          maxLength={60}
          value={text}
          aria-invalid={isWrong}
          aria-describedby={`${id}-says`}
          onChange={(event) => setText(event.target.value)}
          onBlur={send}
        />
      </form>
      <FilterSelect label="Year" options={[ANY, ...years.map((item) => ({ value: item, label: item }))]} value={year} onChange={go} />
      <FilterSelect
        label="Month"
        options={[ANY, ...MONTHS]}
        value={month}
        onChange={(value) => go([year || String(thisYear), value].filter(Boolean).join("-"))}
      />
      <p id={`${id}-says`} className="basis-full text-[15px] empty:hidden" role="status">
        {isWrong ? (
          <span className="font-semibold text-hot">
            “{askedText}” is no time that can be read. Write for example: March 2021, last spring, 2021, {units.onDate("2021-03-01")} to{" "}
            {units.onDate("2021-03-31")}.
          </span>
        ) : asked?.days ? (
          <span className="text-soft">
            {units.onDate(asked.days.from)} to {units.onDate(addDays(asked.days.until, -1))}.{" "}
            {around ? (
              <Link className="underline" href={around}>
                The whole list from there
              </Link>
            ) : null}
          </span>
        ) : null}
      </p>
    </>
  );
}
