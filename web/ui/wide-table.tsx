import type { ReactNode } from "react";

/** A table that is wider than a phone: there it is scrolled, also by the keys. */
export function WideTable({ label, heads, least, children }: { label: string; heads: readonly string[]; least: number; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by the keys
    <section className="overflow-x-auto" aria-label={label} tabIndex={0}>
      <table className="mt-2 w-full text-left" style={{ minWidth: least }}>
        <thead className="text-[14px] text-soft">
          <tr>
            {heads.map((head) => (
              <th key={head} className="pr-4 font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>{children}</tbody>
      </table>
    </section>
  );
}
