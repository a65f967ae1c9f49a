"use client";

import type { AuditEntry } from "@/server/workshops/people";
import { Link } from "@/ui/address";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";

/** What a table is called by who works here. */
const CALLED: Record<string, string> = {
  stock_count: "count of stock",
  formula_version: "version of a formula",
  process_version: "version of a process",
  product_set: "set",
  label_sheet: "sheet of labels",
  labelling: "words on labels",
  grading_rule: "rules of grading",
  supplier_sheet: "supplier's sheet",
  member: "what somebody may do",
  workshop: "the workshop",
  pack: "packing part",
  // As earlier versions called these tables.
  grading: "rules of grading",
  mould: "mold",
  colour: "color",
};
const DID = { insert: "added", update: "changed", delete: "taken out" } as const;
/** Signs of a value that fit a line; the rest is in the records. */
const SHOWN = 90;

const short = (value: string | null): string => (value === null || value === "" ? "nothing" : value.length > SHOWN ? `${value.slice(0, SHOWN)}…` : value);
const fieldName = (name: string): string =>
  name
    .replaceAll("_", " ")
    .replace(/ (um|mg|ug|ppm)$/, "")
    .replace(/ id$/, "");

/** Who changed what on shelf, formulas, products, labels, people and devices. */
export function AuditLog({ rows, more, gaps }: { rows: AuditEntry[]; more: number | null; gaps: number[] }) {
  const units = useUnits();
  return (
    <PageLayout
      title="Audit log"
      lead="Changes to the shelf, formulas, products, labels, people and devices. Batches have their own record."
      actions={
        <Link className="press" href="/people">
          People and devices
        </Link>
      }
      side={
        <Aside title="Integrity">
          The database writes each line with the change itself; the program cannot add, change or delete lines. Each line is chained to the one before, so that
          gaps show.
        </Aside>
      }
    >
      {gaps.length > 0 ? (
        <p role="alert" className={notice({ tone: "hot", className: "mb-4 font-semibold" })}>
          ▲ Integrity check failed at line {gaps.join(", ")}: a line was changed, added or deleted outside this program.
        </p>
      ) : rows.length > 0 ? (
        <p className="mb-3 text-[15px] text-inside">✓ No gaps.</p>
      ) : null}
      {rows.length === 0 ? (
        <Empty title="No changes yet">Changes are listed here, with who made them.</Empty>
      ) : (
        <ol className="max-w-[1080px]">
          {rows.map((row) => (
            <li key={row.seq} className="border-b border-line py-2" data-line={row.seq}>
              <div className="flex flex-wrap gap-x-3">
                <span className="figure w-[52px] text-soft">{row.seq}</span>
                <span className="min-w-[150px]">{units.dayClock(row.at)}</span>
                <strong>
                  {CALLED[row.table] ?? row.table}
                  {row.name ? `: ${row.name}` : ""} {DID[row.what]}
                </strong>
                <span className="text-soft">
                  by {row.by ?? "nobody named"}, through {row.through}
                </span>
              </div>
              {row.what === "update" ? (
                <ul className="ml-[64px] text-[15px]">
                  {Object.entries(row.changed)
                    .slice(0, 8)
                    .map(([field, [from, to]]) => (
                      <li key={field} className="break-words">
                        {fieldName(field)}: <span className="text-soft">{short(from)}</span> → {short(to)}
                      </li>
                    ))}
                </ul>
              ) : null}
            </li>
          ))}
        </ol>
      )}
      {more ? (
        <p className="mt-4">
          <Link className="press" href={`/people/audit-log?before=${more}`}>
            Earlier
          </Link>
        </p>
      ) : null}
    </PageLayout>
  );
}
