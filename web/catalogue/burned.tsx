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
        {burned.map((one) => (
          <li key={`${one.trialId} ${one.testCandle}`} className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-1">
            <Link className="font-semibold underline" href={`/burn/${one.trialId}?view=verdict`}>
              trial {one.trial}, {one.testCandle}
            </Link>
            <span className="min-w-0 flex-1 basis-[160px]">
              {one.says}
              {one.half ? ", half-filled" : ""}, {one.sessions} {one.sessions === 1 ? "session" : "sessions"}
            </span>
            <span>
              {one.safe === false ? (
                <strong className="text-safety">⚠ not safe</strong>
              ) : one.safe === null ? (
                <span className="text-soft">not burned yet</span>
              ) : (
                POOLS[one.pool]
              )}
              {one.decided === "passed" ? (
                <strong className="text-inside"> ✓ {one.half ? "half passed" : "passed"}</strong>
              ) : one.decided === "failed" ? (
                <strong className="text-hot"> ✕ failed</strong>
              ) : null}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
