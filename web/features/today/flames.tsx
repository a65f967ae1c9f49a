"use client";

import type { TrialListed } from "@/server/burn/trials";
import { Link } from "@/ui/address";
import { durationInWords } from "@/ui/describe";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";

/** Burn trials that need attention: what burns, with its next look, then what can be lit. */
export function Flames({ trials, now }: { trials: TrialListed[]; now: string }) {
  const units = useUnits();
  if (trials.length === 0) return null;
  return (
    <section aria-label="Burning" className="mb-6">
      <h2 className="border-b-[3px] border-ink pb-1">Burn</h2>
      <ul>
        {[...trials]
          .sort((a, b) => Number(b.burning.length > 0) - Number(a.burning.length > 0))
          .map((trial) => {
            const seconds = trial.next ? (Date.parse(trial.next.at) - Date.parse(now)) / 1_000 : 0;
            return (
              <li key={trial.id} className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line py-3">
                <div className="min-w-0 flex-1 basis-[240px]">
                  <Link href={`/burn/${trial.id}`} className="text-[18px] font-bold">
                    Trial {trial.number}: {trial.name}
                  </Link>
                  {trial.burning.length > 0 ? (
                    <p>
                      <strong className="text-safety">⚠ {trial.burning.map((each) => each.key).join(", ")} burning.</strong>{" "}
                      {trial.next
                        ? `${trial.next.what === "look" ? "Check" : "Put out"} ${seconds <= 0 ? "now" : `in ${durationInWords(seconds)}, at ${units.clock(trial.next.at)}`}.`
                        : ""}
                    </p>
                  ) : (
                    <p className="text-soft">{trial.ready} ready to light</p>
                  )}
                </div>
                <Link href={`/burn/${trial.id}`} className={press({ size: "gloved" })}>
                  {trial.burning.length > 0 ? "View burning candles" : "Go to the trial"}
                </Link>
              </li>
            );
          })}
      </ul>
    </section>
  );
}
