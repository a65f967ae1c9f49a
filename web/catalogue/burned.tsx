import type { BurnedTestCandle } from "@/server/burn/trials";
import { Link } from "@/ui/address";

const POOLS: Record<string, string> = { right: "pool right", small: "pool too small", large: "pool too large", not_recorded: "pool not recorded" };

/** What burning showed of a batch's test candles, each with the trial that it rests on. */
export function BurnedIn({ burned }: { burned: readonly BurnedTestCandle[] }) {
  if (burned.length === 0) return null;
  return (
    <section className="sheet mt-6" aria-label="Burned">
      <h2>Burned</h2>
      <ul className="mt-1">
        {burned.map((testCandle) => (
          <li key={`${testCandle.trialId} ${testCandle.testCandle}`} className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-1">
            <Link className="font-semibold underline" href={`/burn/${testCandle.trialId}?view=verdict`}>
              trial {testCandle.trial}, {testCandle.testCandle}
            </Link>
            <span className="min-w-0 flex-1 basis-[160px]">
              {testCandle.says}
              {testCandle.half ? ", half-filled" : ""}, {testCandle.sessions} {testCandle.sessions === 1 ? "session" : "sessions"}
            </span>
            <span>
              {testCandle.safe === false ? (
                <strong className="text-safety">⚠ not safe</strong>
              ) : testCandle.safe === null ? (
                <span className="text-soft">not burned yet</span>
              ) : (
                POOLS[testCandle.pool]
              )}
              {testCandle.decided === "passed" ? (
                <strong className="text-inside"> ✓ {testCandle.half ? "half passed" : "passed"}</strong>
              ) : testCandle.decided === "failed" ? (
                <strong className="text-hot"> ✕ failed</strong>
              ) : null}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
