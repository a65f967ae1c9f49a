"use client";

import {
  type BatchPlan,
  type BatchState,
  defectOf,
  howBad,
  JAR_STATUS_WORDS,
  JAR_STATUSES,
  jarStatusesOf,
  namedLines,
  outcomesOf,
  PLACE_WORDS,
} from "@hearth/core";
import { Link } from "@/ui/address";
import { useUnits } from "@/ui/units";

/** What came out of a batch: flaws with their way to the causes, mending, what became of the jars. */
export function CameOut({ plan, state, id }: { plan: BatchPlan; state: BatchState; id: string }) {
  const units = useUnits();
  const several = plan.products.length > 1;
  const nameOf = (key: string) => namedLines(plan.products).find((line) => line.key === key)?.name ?? "";
  return (
    <>
      <ul>
        {outcomesOf(plan, state).flatMap((out) =>
          Object.entries(out.flawed).map(([defect, jars]) => {
            const known = defectOf(defect);
            const unsafe = known?.classes.includes("S");
            const mine = state.flaws.filter((flaw) => flaw.flaw.defect === defect && flaw.flaw.product === out.product);
            return (
              <li key={`${out.product}${defect}`} className="flex flex-wrap items-baseline gap-x-2 border-b border-line py-1">
                <span>
                  {unsafe ? <span className="text-safety">⚠ </span> : null}
                  <strong className={unsafe ? "text-safety" : ""}>{known?.name}</strong>
                </span>
                <span className="figure text-[18px]">
                  {jars} of {out.jars}
                </span>
                {several ? <span>{nameOf(out.product)}</span> : null}
                <span className="text-soft">{[...new Set(mine.map((item) => `${howBad(item.flaw)}, ${PLACE_WORDS[item.flaw.place]}`))].join("; ")}</span>
                <Link className="ml-auto py-2 font-semibold underline" href={`/findings/why/${id}?flaw=${defect}`}>
                  Why {known?.name}?
                </Link>
              </li>
            );
          }),
        )}
      </ul>
      {state.repairs.map((repair) => (
        <p key={repair.eventId} className="border-b border-line py-1">
          {defectOf(repair.defect)?.name} reworked by {repair.how}, {repair.jars} jars{repair.mg ? `, ${units.g(repair.mg)}` : ""}:{" "}
          {repair.held === null ? "recheck due" : `fixed on ${repair.held} of ${repair.jars}`}
        </p>
      ))}
      {state.jarStatuses.length > 0
        ? namedLines(plan.products).map((line) => {
            const { counts } = jarStatusesOf(plan, state, line.key);
            return (
              <p key={line.key} className="py-1">
                {line.name}:{" "}
                {JAR_STATUSES.filter((status) => counts[status] > 0)
                  .map((status) => `${counts[status]} ${JAR_STATUS_WORDS[status]}`)
                  .join(", ")}
              </p>
            );
          })
        : null}
      {state.released ? <p className="py-1 font-semibold text-inside">✓ released for sale {units.dayClock(state.released.at)}</p> : null}
    </>
  );
}
