"use client";

import { Link } from "@/ui/address";

const WAYS = [
  { href: "/findings", name: "By flaw" },
  { href: "/findings/scoreboard", name: "Waxes" },
  { href: "/findings/throw", name: "Throw" },
  { href: "/findings/compare", name: "Compare two" },
  { href: "/findings/charts", name: "Run charts" },
  { href: "/findings/trace", name: "Search and trace" },
] as const;

/** Links between the pages of findings. */
export function Ways({ here }: { here: (typeof WAYS)[number]["href"] }) {
  return (
    <nav aria-label="Findings" className="unprinted mb-4 flex flex-wrap gap-x-5 gap-y-1 border-b border-line pb-2">
      {WAYS.map((way) => (
        <Link
          key={way.href}
          href={way.href}
          aria-current={way.href === here ? "page" : undefined}
          className={`py-2 text-[17px] ${way.href === here ? "font-bold no-underline" : ""}`}
        >
          {way.name}
        </Link>
      ))}
    </nav>
  );
}
