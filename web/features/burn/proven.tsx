"use client";

import { countOf, type ProofStatus } from "@hearth/core";
import type { ProvenGrid, ProvenLine } from "@/server/burn/proven";
import { Link } from "@/ui/address";
import { Aside, BurningCandleCaution, Empty, PageLayout } from "@/ui/side-notes";
import { type Formats, useUnits } from "@/ui/units";
import { WideTable } from "@/ui/wide-table";

/** A sign and a word for each: nobody has to tell them by color. */
const STATUS: Record<ProofStatus, { sign: string; words: string; tone: string }> = {
  proven: { sign: "●", words: "proven", tone: "text-inside" },
  inferred: { sign: "◐", words: "inferred", tone: "" },
  unproven: { sign: "○", words: "not burned", tone: "text-hot" },
  failed: { sign: "✕", words: "failed", tone: "text-safety" },
};

const wickWords = (line: ProvenLine) => `${line.wicks > 1 ? `${line.wicks} × ` : ""}${line.wick}`;
const scentWords = (units: Formats, line: ProvenLine) => (line.scent === "" ? "unscented" : `${line.scent} ${units.percent(line.loadPpm, 1)}`);

/** Returns the address under which a combination is tested: its product's trial, or the burn that speaks for it. */
const hrefOf = (line: ProvenLine) => (line.by ? `/burn/${line.by.trialId}` : line.product ? `/burn/new?product=${line.product.id}` : "/burn/new");

function Status({ line }: { line: ProvenLine }) {
  const { sign, words, tone } = STATUS[line.status];
  return (
    <Link href={hrefOf(line)} className={`whitespace-nowrap ${tone} ${line.status === "unproven" ? "font-semibold" : ""}`}>
      <span aria-hidden="true">{sign}</span> {words}
    </Link>
  );
}

/** What is on sale and was not passed by a burn of its own. */
function OnSale({ lines }: { lines: readonly ProvenLine[] }) {
  const units = useUnits();
  return (
    <section className="mt-4" aria-label="On sale, not proven">
      <h2 className="border-b-[3px] border-ink pb-1">On sale, not proven</h2>
      {lines.length === 0 ? (
        <p className="mt-2">Everything on sale was passed by a burn test of its own.</p>
      ) : (
        <ul>
          {lines.map((line) => (
            <li key={line.product?.id} className="grid items-baseline gap-x-4 border-b border-line py-2 sm:grid-cols-[minmax(0,1fr)_120px_auto]">
              <span className="min-w-0 break-words">
                <Link href={`/products/${line.product?.id}`} className="font-semibold">
                  {line.product?.name}
                </Link>
                <span className="block text-[15px] text-soft">
                  {line.vessel} · {line.wax} · {wickWords(line)} · {scentWords(units, line)}
                  {line.status === "inferred" && line.by
                    ? `; inferred from ${scentWords(units, { ...line, scent: line.by.scent, loadPpm: line.by.loadPpm })} in ${line.by.wax}`
                    : ""}
                </span>
              </span>
              <Status line={line} />
              <Link className="press" href={`/burn/new?product=${line.product?.id}`}>
                Design a test
              </Link>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** One wax: vessels with their wicks down, scents across. */
function GridOf({ wax, lines }: { wax: string; lines: readonly ProvenLine[] }) {
  const units = useUnits();
  const rows = [...new Set(lines.map((line) => `${line.vessel} · ${wickWords(line)}`))].sort();
  const scents = [...new Set(lines.map((line) => line.scent || "unscented"))].sort();
  return (
    <section className="mt-6" aria-label={wax}>
      <h2>{wax}</h2>
      <WideTable label={`What is proven in ${wax}`} heads={["vessel · wick", ...scents]} least={220 + scents.length * 120}>
        {rows.map((row) => (
          <tr key={row} className="border-t border-line align-top">
            <th scope="row" className="max-w-[220px] py-2 pr-3 text-left font-semibold break-words">
              {row}
            </th>
            {scents.map((scent) => {
              const cell = lines.filter((line) => `${line.vessel} · ${wickWords(line)}` === row && (line.scent || "unscented") === scent);
              return (
                <td key={scent} className="py-2 pr-3">
                  {cell.map((line) => (
                    <span key={`${line.loadPpm} ${line.product?.id ?? ""}`} className="block">
                      <Status line={line} />
                      <span className="block text-[13px] text-soft">
                        {line.scent === "" ? "" : units.percent(line.loadPpm, 1)}
                        {line.product ? " on sale" : ""}
                      </span>
                    </span>
                  ))}
                </td>
              );
            })}
          </tr>
        ))}
      </WideTable>
    </section>
  );
}

/** Every vessel, wax, wick and scent that is sold or was burned: what a passed burn proves, what it lets be inferred, what is open. */
export function Proven({ grid }: { grid: ProvenGrid }) {
  const waxes = [...new Set(grid.lines.map((line) => line.wax))].sort();
  const { tests, covered } = grid.best;
  return (
    <PageLayout
      title="What is proven"
      lead="Vessel, wax, wick and scent, by your own burn tests."
      actions={
        <Link className="press" href="/burn">
          All trials
        </Link>
      }
      side={
        <>
          <BurningCandleCaution />
          <Aside title="Proven and inferred">
            ● A full candle of exactly this passed. ◐ Another scent passed in the same vessel with the same wick, in a wax of the same family, within one point
            of load. ○ Nothing like it was burned. An inference is no test: another scent can burn otherwise.
          </Aside>
          <Aside title="A pass is your own decision">Standards, local rules and your insurer decide what may be sold.</Aside>
        </>
      }
    >
      {grid.lines.length === 0 ? (
        <Empty
          title="Nothing sold or burned yet"
          action={
            <Link className="press" href="/burn/new">
              Design a trial
            </Link>
          }
        >
          <p>Products with a wick, and candles that were burned, stand here with what proves them.</p>
        </Empty>
      ) : (
        <>
          {tests.length > 0 ? (
            <section className="sheet" aria-label="Tests that would prove most">
              <h2>{tests.length === 1 ? "The test that would prove most" : "The two tests that would prove most"}</h2>
              <p className="mt-1">
                A pass would cover {countOf(covered, "product", "products")} of{" "}
                {countOf(grid.onSale.filter((line) => line.status === "unproven").length, "that is", "that are")} not burned.
              </p>
              <div className="mt-2 flex flex-wrap gap-3">
                {tests.map((line, index) => (
                  <Link
                    key={line.product?.id}
                    className={index === 0 ? "action-button" : "press"}
                    href={`/burn/new?product=${line.product?.id}`}
                    data-next-step={index === 0 ? true : undefined}
                  >
                    Test {line.product?.name}
                  </Link>
                ))}
              </div>
            </section>
          ) : null}
          <OnSale lines={grid.onSale} />
          {waxes.map((wax) => (
            <GridOf key={wax} wax={wax} lines={grid.lines.filter((line) => line.wax === wax)} />
          ))}
        </>
      )}
    </PageLayout>
  );
}
