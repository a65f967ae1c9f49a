"use client";

import { BURNING_CANDLE, HOT_WAX } from "@hearth/core";
import { type ReactNode, useEffect, useState } from "react";
import { notice } from "./variants";

/** A caution where the step is. Magenta and a triangle always mean safety. */
export function Caution({ children, title = "Take care" }: { children: ReactNode; title?: string }) {
  return (
    <section className={notice({ tone: "safety", size: "small" })} data-open="">
      <h2 className="text-[17px] text-safety">⚠ {title}</h2>
      <div className="mt-1">{children}</div>
    </section>
  );
}

/** The caution for hot wax, in the margin of every screen where it is melted or poured. */
export const HotWaxCaution = () => <Caution title="Hot wax">{HOT_WAX}</Caution>;

/** The same where the margin lies below the work: one line before the step, which opens to the whole. */
export const HotWaxLine = () => (
  <details className="unprinted mb-2 text-[15px] lg:hidden">
    <summary className="cursor-pointer font-semibold text-safety">⚠ Hot wax: stay with it, no water</summary>
    <p className="mt-1">{HOT_WAX}</p>
  </details>
);

/** The caution for a burning candle, where one is lit or watched. */
export const BurningCandleCaution = () => <Caution title="Burning candles">{BURNING_CANDLE}</Caution>;

const FOLDED = "hearth.folded";
const foldedOf = (): string[] => {
  try {
    return JSON.parse(localStorage.getItem(FOLDED) ?? "[]") as string[];
  } catch {
    return [];
  }
};

/** A reason or a remark beside what it concerns. Once read it can be folded away, on this device; where all are, the work gets the width. */
export function Aside({ title, children }: { title: string; children: ReactNode }) {
  const [folded, setFolded] = useState(false);
  useEffect(() => setFolded(foldedOf().includes(title)), [title]);
  const fold = (to: boolean) => {
    setFolded(to);
    try {
      const rest = foldedOf().filter((folded) => folded !== title);
      localStorage.setItem(FOLDED, JSON.stringify(to ? [...rest, title] : rest));
    } catch {
      // A device that keeps nothing folds it for this page only.
    }
  };
  return (
    <section className="text-[15px] text-soft" {...(folded ? {} : { "data-open": "" })}>
      <h2 className="flex items-start justify-between gap-2 text-[17px] text-ink">
        <button type="button" className="min-h-[24px] text-left" aria-expanded={!folded} onClick={() => fold(!folded)}>
          {title}
          <span aria-hidden="true" className="unprinted ml-2 text-soft">
            {folded ? "+" : "–"}
          </span>
        </button>
      </h2>
      {folded ? null : <div className="mt-1">{children}</div>}
    </section>
  );
}

/** Something to look at again before going on: over a limit, between the marks of the scale. */
export function Warn({ children }: { children: ReactNode }) {
  return (
    <p className={notice({ size: "small", className: "font-medium" })} data-open="">
      ▲ {children}
    </p>
  );
}

/** An empty screen that teaches: what goes here, why it helps, and the way to begin. */
export function Empty({ title, children, action }: { title: string; children: ReactNode; action?: ReactNode }) {
  return (
    <section className="sheet max-w-[640px]">
      <h2>{title}</h2>
      <div className="mt-2 text-soft">{children}</div>
      {action ? <div className="mt-4">{action}</div> : null}
    </section>
  );
}

/** A screen: its heading, its work, and the margin beside it. */
export function PageLayout({
  title,
  lead,
  side,
  actions,
  gloved = false,
  children,
}: {
  title: ReactNode;
  lead?: ReactNode;
  side?: ReactNode;
  actions?: ReactNode;
  /** Worked with gloves on: everything that can be pressed or typed in is at least 56 px high. */
  gloved?: boolean;
  children: ReactNode;
}) {
  return (
    <main
      id="work"
      className={`${gloved ? "gloved " : ""}screen mx-auto grid max-w-[1760px] grid-cols-1 gap-x-8 gap-y-6 px-4 py-3 sm:px-8 sm:py-5 lg:grid-cols-[minmax(0,1fr)_264px]`}
    >
      <div className="min-w-0">
        <div className="mb-3 flex flex-wrap items-end justify-between gap-3 sm:mb-4">
          <div className="min-w-0">
            <h1 className={gloved ? "max-sm:!text-[22px]" : ""}>{title}</h1>
            {lead ? <div className={`mt-1 text-soft ${gloved ? "max-sm:truncate" : ""}`}>{lead}</div> : null}
          </div>
          {actions ? <div className="unprinted flex flex-wrap gap-3">{actions}</div> : null}
        </div>
        {children}
      </div>
      <aside aria-label="Help" className="flex flex-col gap-5 lg:border-l-2 lg:border-line lg:pl-6">
        {side}
      </aside>
    </main>
  );
}
