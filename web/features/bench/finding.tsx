"use client";

import type { ForecastView } from "@hearth/core";
import type { PourFinding } from "@/server/findings/pour-finding";
import { Link } from "@/ui/address";
import { durationInWords } from "@/ui/describe";
import { useNow, useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";

interface PotFindingProps {
  finding: PourFinding;
  /** The newest reading in hundredths of °C; null before there is one. */
  newest: number | null;
  /** When the pot comes down to the temperature that divides good batches from bad; null if that is not known. */
  ahead: ForecastView | null;
}

/** What the workshop's own batches say of this pour, with what is forecast of the pot, in one line. */
export function PotFinding({ finding, newest, ahead }: PotFindingProps) {
  const units = useUnits();
  const now = useNow();
  const at = Math.round(finding.at * 100);
  const jars = (flawed: number, of: number) => (flawed === 0 ? `in none of ${of}` : `in ${flawed} of ${of}`);
  const other = finding.worse === "above" ? "at or below it" : "above it";
  const isThere = newest !== null && (finding.worse === "above" ? newest > at : newest <= at);
  const left = ahead?.enters ? (Date.parse(ahead.enters.at) - Date.parse(now)) / 1_000 : null;
  return (
    <section aria-label="Your own batches" className={isThere ? notice({ size: "small", className: "mt-2" }) : "mt-2 text-[15px]"}>
      <p>
        {isThere ? "▲ " : ""}
        Poured {finding.worse === "above" ? "above" : "at or below"} {units.t(at)}, your {finding.wax} came out with {finding.flaw}{" "}
        <strong>{jars(finding.flawed, finding.of)} jars</strong>; {other} {jars(finding.otherFlawed, finding.otherOf)}
        {isThere && finding.worse === "above" ? (
          <>
            :{" "}
            <strong>
              {left !== null && left > 0
                ? `wait ${durationInWords(Math.max(60, left))}, until about ${units.clock(ahead?.enters?.at ?? now)}`
                : "wait until it has cooled to that"}
            </strong>
          </>
        ) : isThere ? (
          <>
            : <strong>warm it up again before you pour</strong>
          </>
        ) : null}
        .{" "}
        <Link className="underline" href="/findings">
          See findings
        </Link>
      </p>
    </section>
  );
}
