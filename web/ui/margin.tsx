import Link from "next/link";
import type { ReactNode } from "react";
import { notice } from "./variants";

/** A caution where the act is. Magenta and a triangle always mean safety. */
export function Caution({ children, title = "Take care" }: { children: ReactNode; title?: string }) {
  return (
    <section className={notice({ tone: "safety", size: "small" })}>
      <h3 className="text-safety">⚠ {title}</h3>
      <div className="mt-1">{children}</div>
    </section>
  );
}

/** A reason or a remark beside what it concerns. */
export function Aside({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="text-[15px] text-soft">
      <h3 className="text-ink">{title}</h3>
      <div className="mt-1">{children}</div>
    </section>
  );
}

/** Something to look at again before going on: over a limit, between the marks of the scale. */
export function Warn({ children }: { children: ReactNode }) {
  return <p className={notice({ size: "small", className: "font-medium" })}>▲ {children}</p>;
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
export function Screen({
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
      className={`${gloved ? "gloved " : ""}mx-auto grid max-w-[1360px] grid-cols-1 gap-x-8 gap-y-6 px-4 py-5 sm:px-8 lg:grid-cols-[minmax(0,1fr)_264px]`}
    >
      <div className="min-w-0">
        <div className="mb-4 flex flex-wrap items-end justify-between gap-3">
          <div>
            <h1>{title}</h1>
            {lead ? <div className="mt-1 text-soft">{lead}</div> : null}
          </div>
          {actions ? <div className="unprinted flex flex-wrap gap-3">{actions}</div> : null}
        </div>
        {children}
      </div>
      <aside className="flex flex-col gap-5 lg:border-l-2 lg:border-line lg:pl-6">{side}</aside>
    </main>
  );
}

/** The way to the rows after these; nothing where there are none. */
export function Older({ path, after, children }: { path: string; after: string | null; children: ReactNode }) {
  if (!after) return null;
  return (
    <Link className="press mt-4" href={`${path}?after=${encodeURIComponent(after)}`}>
      {children}
    </Link>
  );
}
