"use client";

import {
  ADVICE_WORDS,
  type BurnVerdict,
  type Decision,
  dueChecks,
  ladderAnswer,
  lookWords,
  NO_CERTIFICATE,
  nextTrial,
  sessionOf,
  type VariantVerdict,
  variantVerdicts,
  writeDuration,
} from "@hearth/core";
import { useMemo, useState } from "react";
import { callAction } from "@/forms/call-action";
import { useOutbox } from "@/log/outbox";
import { useWorkshop } from "@/log/workshop";
import { takeWick } from "@/server/burn/commands";
import { Link, useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { toast } from "@/ui/toast";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import { sayRate } from "./say";
import type { Trial } from "./use-trial";

const POOL_WORDS: Record<VariantVerdict["pool"], string> = {
  right: "pool right",
  small: "pool too small",
  large: "pool too large",
  not_recorded: "pool not recorded",
  "they differ": "pools differ",
};

function Safe({ safe }: { safe: boolean | null }) {
  return safe === false ? (
    <strong className="text-safety">⚠ not safe</strong>
  ) : safe === null ? (
    <strong className="text-soft">? not known</strong>
  ) : (
    <strong className="text-inside">✓ nothing unsafe seen</strong>
  );
}

/** The looks that a verdict rests on, session by session; those that nobody made stand there too. */
function Looks({ trial, verdict }: { trial: Trial; verdict: BurnVerdict }) {
  const units = useUnits();
  const state = trial.state.testCandles[verdict.key];
  if (!state) return null;
  const counts = new Set(verdict.seen.map((item) => `${item.session} ${item.look}`));
  return (
    <details className="mt-1">
      <summary className="min-h-[32px] text-[15px] underline">
        {verdict.key}: {verdict.sessions} {verdict.sessions === 1 ? "session" : "sessions"}, with its checks
      </summary>
      {verdict.safety.reasons.map((reason) => (
        <p key={reason.words} className="text-[15px] font-semibold text-safety">
          ⚠ {reason.words}
        </p>
      ))}
      {state.sessions.map((session, index) => {
        const dues = dueChecks(sessionOf(trial.plan.protocol, index)?.checks ?? [], session, trial.now);
        return (
          <div key={session.id} className="mt-1 border-l-4 border-line pl-3 text-[15px]">
            <p className="font-semibold">
              Session {index + 1}, {units.dayClock(session.litAt)}
              {session.out
                ? `, out ${units.clock(session.out.at)}${session.out.why === "protocol" ? "" : `: ${session.out.why}${session.out.sign ? `, ${session.out.sign}` : ""}`}`
                : ", burning"}
              {session.early ? ` · before its minimum cure: ${session.early}` : ""}
            </p>
            <ul>
              {session.checks.map((look, n) => {
                const minute = Math.round((Date.parse(look.at) - Date.parse(session.litAt)) / 60_000);
                const late = dues.find((check) => check.check?.id === look.id && check.state === "late");
                return (
                  <li key={look.id} className={counts.has(`${index} ${n}`) ? "font-semibold" : ""}>
                    {counts.has(`${index} ${n}`) ? "● " : ""}
                    {minute} min: {lookWords(look, units)}
                    {late ? <span className="text-hot"> · late, asked at {late.due} min</span> : null}
                  </li>
                );
              })}
              {dues.flatMap((check) =>
                check.state === "missed"
                  ? [
                      <li key={check.due} className="text-hot">
                        ▲ {check.due} min: check missed
                      </li>,
                    ]
                  : [],
              )}
            </ul>
          </div>
        );
      })}
      {verdict.unknown.length > 0 ? <p className="mt-1 text-[15px] text-soft">{verdict.unknown.join(" ")}</p> : null}
    </details>
  );
}

/** One variant: what its test candles say together, what stands open, and what the maker makes of it. */
function Variant({
  trial,
  verdict,
  product,
}: {
  trial: Trial;
  verdict: VariantVerdict;
  product: { id: string; name: string; wickId: string | null; wicks: number } | null;
}) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const [message, setMessage] = useState("");
  const decided = trial.state.decided[verdict.variant];
  const mine = trial.plan.testCandles.filter((testCandle) => testCandle.variant === verdict.variant);
  const wick = mine[0]?.wick;
  const { waiting } = useOutbox();
  // Until the server has the verdict, the rack would ask for a burn test.
  const isSent = !waiting.some((entry) => entry.batchId === trial.id);
  /** The batch that its jars were taken from. */
  const batch = trial.batches.find((item) => mine.some((testCandle) => testCandle.batch?.id === item.id));
  const half = mine.some((testCandle) => testCandle.fill === "half");
  const decide = (to: Decision) => setMessage(trial.enter({ kind: "decided", payload: { variant: verdict.variant, verdict: to, why: "" } }));
  const full = verdict.testCandles.find((testCandle) => testCandle.pool.full_at_minute !== null);
  const take = async () => {
    if (!product) return;
    const outcome = await callAction(takeWick(workshop, { trialId: trial.id, variant: verdict.variant, productId: product.id }));
    if (!outcome.ok) return setMessage(outcome.message);
    toast(`${product.name} has ${wick?.name} now.`);
    router.refresh();
  };
  return (
    <li className="border-b-2 border-line py-4" aria-label={`Variant ${verdict.variant}`}>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <span className="figure text-[30px] leading-none">{verdict.variant}</span>
        <span className="text-[19px] font-bold">{verdict.words}</span>
        {decided ? (
          <span className={`ml-auto text-[19px] font-bold ${decided.verdict === "passed" ? "text-inside" : "text-hot"}`}>
            {decided.verdict === "passed" ? "✓ passed" : "✕ failed"}
          </span>
        ) : null}
      </div>
      <p className="mt-1">
        <Safe safe={verdict.safe} /> · {POOL_WORDS[verdict.pool]}
        {full ? `, full after ${writeDuration((full.pool.full_at_minute ?? 0) * 60)} in session ${full.pool.session}` : ""}
        {verdict.grams_per_hour ? <> · {sayRate(units, verdict.grams_per_hour)} an hour</> : null}
      </p>
      {verdict.advice ? (
        <p className="mt-1">
          <strong>{ADVICE_WORDS[verdict.advice.what]}.</strong> {units.say(verdict.advice.why)}
        </p>
      ) : null}
      {verdict.open.length > 0 ? <p className="text-[15px] text-soft">Open: {verdict.open.join("; ")}.</p> : null}
      {verdict.testCandles.map((testCandle) => (
        <Looks key={testCandle.key} trial={trial} verdict={testCandle} />
      ))}
      <div className="mt-2 flex flex-wrap gap-2">
        {decided ? (
          <button type="button" className="press" onClick={() => decide("open")}>
            Reopen
          </button>
        ) : (
          <>
            <button
              type="button"
              className={verdict.open.length === 0 ? "action-button" : "press"}
              {...(verdict.open.length === 0 ? { "data-next-step": "" } : {})}
              onClick={() => decide("passed")}
            >
              Passed{half ? ", half-filled" : ""}
            </button>
            <button type="button" className="press" onClick={() => decide("failed")}>
              Failed
            </button>
          </>
        )}
        {product && wick && decided?.verdict === "passed" && !half && (product.wickId !== wick.wickId || product.wicks !== wick.count) ? (
          <button type="button" className="press" onClick={() => void take()}>
            Use this wick in {product.name}
          </button>
        ) : null}
        {decided?.verdict === "passed" && !half && batch && isSent ? (
          <Link className="press" href={`/rack/${batch.id}`}>
            Release batch {batch.number}
          </Link>
        ) : null}
      </div>
      {decided?.verdict === "passed" && half ? (
        <p className="mt-1 text-[15px] text-soft">A half-fill result never counts as a full pass: the product stays “test due”.</p>
      ) : null}
      <FormMessage>{message}</FormMessage>
    </li>
  );
}

/** What the trial says of each variant, and the one change for the trial after it. */
export function Verdicts({ trial, product }: { trial: Trial; product: { id: string; name: string; wickId: string | null; wicks: number } | null }) {
  const units = useUnits();
  const verdicts = useMemo(() => variantVerdicts(trial.plan, trial.state, units), [trial.plan, trial.state, units]);
  const next = nextTrial(trial.plan, trial.state);
  const answer = ladderAnswer(trial.plan, trial.state);
  return (
    <>
      {answer ? (
        <section className="sheet mb-4" aria-label="What the trial says">
          <p className={`text-[26px] leading-tight font-bold ${answer.isFound ? "text-inside" : ""}`}>
            {answer.isFound ? "✓ " : ""}
            {answer.says}
          </p>
          <p className="text-soft">
            {answer.isFound ? "The least that does well; more of it burned here is no better for that." : "None of the steps does well yet."} Common practice,
            no source.
          </p>
        </section>
      ) : null}
      <p className="text-soft">Judged in this order: safety, flame, melt pool, scent throw. One change at a time.</p>
      <ul className="mt-2 border-t-[3px] border-ink">
        {verdicts.map((verdict) => (
          <Variant key={verdict.variant} trial={trial} verdict={verdict} product={product} />
        ))}
      </ul>
      {next ? (
        <section className="sheet mt-5" aria-label="The next trial">
          <h2>Next: {ADVICE_WORDS[next.what].toLowerCase()}</h2>
          <p className="mt-1">
            From variant {next.variant}. {units.say(next.why)}
          </p>
          <Link className={press({ size: "gloved", className: "mt-2" })} href={`/burn/new?follows=${trial.id}&variant=${next.variant}`}>
            Create next trial
          </Link>
        </section>
      ) : null}
      <p className="mt-4 font-semibold">{NO_CERTIFICATE}</p>
    </>
  );
}
