"use client";

import { type ChangeNext, type ChangePlace, changePlace, DEFECTS, type Judged, keyOf, type RecordKeyName, toldOf, withChange } from "@hearth/core";
import { useState, useTransition } from "react";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import type { BatchDiagnosis } from "@/server/findings/diagnosis";
import { saveFormula } from "@/server/formulas/formula-save";
import { Link, useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { describeGap, describeLogged } from "@/ui/logged";
import { Aside, Caution, PageLayout } from "@/ui/side-notes";
import { type Formats, useUnits } from "@/ui/units";
import { OwnCauses } from "./own-causes";
import { Shares } from "./shares";

const VERDICT = {
  supported: { sign: "●", words: "consistent with the record", tone: "text-hot" },
  not_recorded: { sign: "?", words: "not recorded", tone: "text-soft" },
  contradicted: { sign: "○", words: "contradicted by the record", tone: "text-inside" },
} as const;

/** Returns what the record says of a cause: "poured at 72 °C, 9 °C above 63 °C". */
function says(units: Formats, { cause, verdict, evidence }: Judged): string {
  const { key, test } = cause;
  if (!evidence || !test) return key ? `Log “${keyOf(key).words}” next time.` : "No evidence recorded.";
  if ("family" in test || key === null) return `The wax is ${evidence.measured}.`;
  const words = key === "cure_days" && /throw$/.test(cause.defect) ? "smelled after" : keyOf(key).words;
  const value = `${words}${typeof evidence.measured === "boolean" ? ":" : ""} ${describeLogged(units, key, evidence.measured)}`;
  if (typeof evidence.measured !== "number" || typeof evidence.limit !== "number") return value;
  const side = "above" in test ? "above" : "below";
  const limit = describeLogged(units, key, evidence.limit);
  return verdict === "supported"
    ? `${value}, ${describeGap(units, key, Math.abs(evidence.measured - evidence.limit))} ${side} ${limit}`
    : `${value}, not ${side} ${limit}`;
}

/** What to do about a change of which no version of the formula can be made by itself. */
const BY_HAND: Record<ChangePlace, string> = {
  formula: "",
  ingredients: "Choose the other ingredient in the formula, and change nothing else.",
  wick: "It is the product's wick: change it there, and burn-test before you sell.",
  practice: "It is not part of the formula: do it in the next batch, and leave the formula unchanged.",
};

/** One change, made into the next version of the formula with one press. */
function OneChange({ why, change }: { why: BatchDiagnosis; change: ChangeNext }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const [message, setMessage] = useState("");
  const [made, setMade] = useState<number | null>(null);
  const [busy, start] = useTransition();
  const { formula } = why;
  const key = change.what as RecordKeyName;
  const at = formula ? changePlace(formula.spec, change) : "practice";
  const draft = () =>
    start(async () => {
      if (!formula) return;
      const spec = withChange(formula.spec, change, `batch ${why.batch.number}`);
      const out = await callAction(saveFormula(workshop, { id: formula.id, expectedVersion: formula.version, name: formula.name, spec }));
      if (!out.ok) return setMessage(out.message);
      if (out.value.stale) return setMessage("Somebody else changed this formula. Reload the page.");
      setMessage("");
      setMade(out.value.number);
      router.refresh();
    });
  return (
    <section aria-label="One change for next time" className="mt-5 border-y-[3px] border-ink py-3">
      <h2>One change for next time</h2>
      <p className="mt-1 text-[20px]">
        {keyOf(key).words}: <strong className="figure text-[26px]">{describeLogged(units, key, change.to)}</strong> instead of{" "}
        {describeLogged(units, key, change.from)}
      </p>
      <p className="text-soft">{change.why} Change nothing else, so that you know what made the difference.</p>
      {made !== null && formula ? (
        <div className="mt-2 flex flex-wrap items-center gap-3">
          <span className="font-bold text-inside">
            ✓ {formula.name}, version {made}
          </span>
          <Link className="action-button" href={`/plan?formula=${formula.id}`} data-next-step>
            Plan or practice it
          </Link>
          <Link className="press" href={`/formulas/${formula.id}`}>
            Open the formula
          </Link>
        </div>
      ) : formula && at === "formula" ? (
        <button type="button" className="action-button mt-2" data-next-step disabled={busy} onClick={draft}>
          Save as the next version of {formula.name}
        </button>
      ) : (
        <p className="mt-1">
          {BY_HAND[at]}{" "}
          {formula && at === "ingredients" ? (
            <Link className="underline" href={`/formulas/${formula.id}`}>
              Open the formula
            </Link>
          ) : null}
        </p>
      )}
      <FormMessage>{message}</FormMessage>
    </section>
  );
}

/** The flaws of the batch, and any other, to choose from. */
function ChooseFlaw({ why: { batch, flaws, defect } }: { why: BatchDiagnosis }) {
  const router = useRouter();
  const to = (next: string) => router.push(`/findings/why/${batch.id}?flaw=${next}`);
  return (
    <div className="flex flex-wrap items-center gap-2">
      {flaws.map((flaw) => (
        <button
          key={flaw.defect}
          type="button"
          className={flaw.defect === defect ? "press !bg-ink !text-sheet" : "press"}
          aria-pressed={flaw.defect === defect}
          onClick={() => to(flaw.defect)}
        >
          {flaw.name}: {flaw.jars} of {flaw.of}
        </button>
      ))}
      <label className="text-[15px]">
        {flaws.length > 0 ? "Another flaw" : "Which flaw"}{" "}
        <select className="entry !w-auto" value="" onChange={(event) => to(event.target.value)}>
          <option value="">choose</option>
          {DEFECTS.map((defect) => (
            <option key={defect.id} value={defect.id}>
              {defect.name}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}

/** The known causes of the flaw, each with what this record says of it and how often it came so far. */
function Causes({ why, flaw }: { why: BatchDiagnosis; flaw: string | undefined }) {
  const units = useUnits();
  return why.causes.length > 0 ? (
    <section aria-label="Causes" className="mt-5">
      <h2 className="border-b-[3px] border-ink pb-1">Known causes, and what this record says</h2>
      <ol>
        {why.causes.map((cause) => {
          const verdict = VERDICT[cause.verdict];
          return (
            <li key={cause.cause.id} className="grid gap-x-5 gap-y-1 border-b border-line py-3 xl:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
              <div>
                <div className="text-[19px] font-bold">
                  <span aria-hidden="true" className={verdict.tone}>
                    {verdict.sign}{" "}
                  </span>
                  {cause.cause.words}
                  <span className={`ml-2 text-[15px] font-semibold ${verdict.tone}`}>
                    {cause.cause.natural && cause.verdict === "supported" ? "natural for this wax" : verdict.words}
                  </span>
                </div>
                <div className="font-semibold">{says(units, cause)}</div>
                <div className="text-[15px] text-soft">{cause.cause.reason}</div>
              </div>
              {cause.history && cause.history.levels.length > 0 ? (
                <div>
                  <p className="text-[14px] text-soft">Here so far, {flaw}:</p>
                  <Shares levels={cause.history.levels} />
                </div>
              ) : null}
            </li>
          );
        })}
      </ol>
    </section>
  ) : null;
}

/** What was different from the batches without the flaw. */
function Unlike({ why }: { why: BatchDiagnosis }) {
  const units = useUnits();
  return (
    <section aria-label="What was different" className="mt-6">
      <h2 className="border-b-[3px] border-ink pb-1">Differences from batches without it</h2>
      {why.unlike.length > 0 ? (
        <ul>
          {why.unlike.map((unlike) => (
            <li key={unlike.key} className="border-b border-line py-2">
              <strong>{keyOf(unlike.key).words}</strong>: {describeLogged(units, unlike.key, unlike.here)} here;{" "}
              {typeof unlike.fine === "boolean"
                ? `${describeLogged(units, unlike.key, unlike.fine)} in all ${unlike.batches} without it`
                : `${describeLogged(units, unlike.key, unlike.fine.low)} to ${describeLogged(units, unlike.key, unlike.fine.high)} in the ${unlike.batches} without it`}
            </li>
          ))}
        </ul>
      ) : (
        <p className="py-2 text-soft">
          {why.fine < 5
            ? `Too few batches to tell: ${why.fine} inspected batches of this wax family without it.`
            : `Nothing recorded differs from the ${why.fine} batches without it.`}
        </p>
      )}
    </section>
  );
}

/** The later batches of the formula, to be compared with this one. */
function After({ why: { after, batch } }: { why: BatchDiagnosis }) {
  return after.length > 0 ? (
    <p className="mt-4">
      Later batches of this formula:{" "}
      {after.map((item, index) => (
        <span key={item.id}>
          {index > 0 ? ", " : ""}
          <Link className="underline" href={`/findings/compare?a=${batch.number}&b=${item.number}`}>
            compare with {item.number}
          </Link>
        </span>
      ))}
    </p>
  ) : null;
}

/** Why a batch shows a flaw: the known causes in order, what its record says of each, and how it went before. */
export function Diagnosis({ why, causes }: { why: BatchDiagnosis; causes: Parameters<typeof OwnCauses>[0]["causes"] }) {
  const units = useUnits();
  const { batch, flaws, defect } = why;
  const known = defect === null ? undefined : toldOf(defect);
  const seen = flaws.find((flaw) => flaw.defect === defect);
  return (
    <PageLayout
      title={known ? `Why ${known.name}?` : "Why this flaw?"}
      lead={`${batch.rehearsal ? "Rehearsal" : "Batch"} ${batch.number}: ${batch.title}${batch.pouredAt ? `, poured ${units.dayClock(batch.pouredAt)}` : ""}`}
      actions={
        <Link className="press" href={`/records/${batch.id}`}>
          View record
        </Link>
      }
      side={
        <>
          {why.class === "safety" ? <Caution title="Safety">{known?.remedy}</Caution> : null}
          {known ? (
            <Aside title={known.name}>
              {known.looks} {why.class === "cosmetic" ? "Cosmetic: it does no harm." : ""} <strong>Now:</strong> {known.remedy}
            </Aside>
          ) : null}
          <Aside title="How certain this is">
            A cause that fits the record is likely, not proven: one flaw has several causes. Change one thing, and see in the next batch.
          </Aside>
          <Aside title="Where the causes come from">Common practice among makers, without a published source. Add your own below.</Aside>
        </>
      }
    >
      <ChooseFlaw why={why} />
      {!defect ? <p className="mt-4 text-soft">No flaw is recorded for this batch. Choose one to see its possible causes.</p> : null}
      {defect && !seen ? <p className="mt-3 text-soft">This flaw was not recorded on this batch.</p> : null}
      {why.change ? <OneChange key={`${defect}${why.change.what}`} why={why} change={why.change} /> : null}
      {why.next ? (
        <section aria-label="One step to try" className="mt-5 border-y-[3px] border-ink py-3">
          <h2>One step to try next</h2>
          <p className="mt-1 text-[20px]">{units.say(why.next)}</p>
          <p className="text-soft">The next step to try, without those already tried. Change nothing else. Common practice, no source.</p>
        </section>
      ) : null}
      <Causes why={why} flaw={known?.name} />
      {defect ? <Unlike why={why} /> : null}
      <After why={why} />
      {defect ? <OwnCauses defect={defect} causes={causes} /> : null}
    </PageLayout>
  );
}
