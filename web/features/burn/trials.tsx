"use client";

import { FindBar, type LongListProps, NothingFound, OlderNewer } from "@/catalogue/find-bar";
import type { TrialListed } from "@/server/burn/trials";
import { Link } from "@/ui/address";
import { durationInWords } from "@/ui/describe";
import { Aside, BurningCandleCaution, Empty, PageLayout } from "@/ui/side-notes";
import { useNow, useUnits } from "@/ui/units";

function Row({ trial, now, first }: { trial: TrialListed; now: string; first: boolean }) {
  const units = useUnits();
  const due = trial.next && Date.parse(trial.next.at) <= Date.parse(now);
  const passed = Object.entries(trial.decided).filter(([, verdict]) => verdict === "passed").length;
  const failed = Object.entries(trial.decided).filter(([, verdict]) => verdict === "failed").length;
  return (
    <li className="grid items-center gap-x-5 gap-y-2 border-b border-line py-3 sm:grid-cols-[auto_minmax(0,1fr)_auto]">
      <span className="figure text-[34px] leading-none">{trial.number}</span>
      <div className="min-w-0">
        <Link href={`/burn/${trial.id}`} className="text-[19px] font-bold">
          {trial.name}
        </Link>
        <p className="text-soft">
          {trial.testCandles} {trial.testCandles === 1 ? "test candle" : "test candles"}
          {trial.varies ? `, varies the ${trial.varies}` : ""} · {trial.sessions} {trial.sessions === 1 ? "session" : "sessions"} · started{" "}
          {units.day(trial.startedAt)}
        </p>
        {trial.burning.length > 0 ? (
          <p className="font-semibold">
            <span className="text-safety">⚠ {trial.burning.map((item) => item.key).join(", ")} burning.</span>{" "}
            {trial.next ? (
              <span className={due ? "text-[19px]" : ""}>
                {trial.next.what === "look" ? "Check" : "Put out"}{" "}
                {due ? "now" : `in ${durationInWords((Date.parse(trial.next.at) - Date.parse(now)) / 1_000)}`}
              </span>
            ) : null}
          </p>
        ) : trial.ready > 0 ? (
          <p>{trial.ready} ready to light</p>
        ) : trial.resting > 0 ? (
          <p className="text-soft">{trial.resting} at rest</p>
        ) : null}
        {passed + failed > 0 ? (
          <p className="text-[15px]">
            {passed > 0 ? <strong className="text-inside">✓ {passed} passed</strong> : null}
            {passed > 0 && failed > 0 ? ", " : ""}
            {failed > 0 ? <strong className="text-hot">✕ {failed} failed</strong> : null}
          </p>
        ) : null}
      </div>
      <Link href={`/burn/${trial.id}`} className={first ? "action-button" : "press"} {...(first ? { "data-next-step": "" } : {})}>
        {trial.burning.length > 0 ? "View burning candles" : trial.closed ? "Read it" : "Open it"}
      </Link>
    </li>
  );
}

interface TrialsProps extends LongListProps {
  open: TrialListed[];
  closed: TrialListed[];
}

/** Burn trials: what burns first, then what can be lit, then what is at rest; below them those that are closed. */
export function Trials({ open, closed, older, newer, narrowed, filters }: TrialsProps) {
  const now = useNow(5_000);
  const rank = (trial: TrialListed) => (trial.burning.length > 0 ? 0 : trial.ready > 0 ? 1 : 2);
  const due = (trial: TrialListed) => Date.parse(trial.next?.at ?? "2200-01-01");
  const sorted = [...open].sort((a, b) => rank(a) - rank(b) || due(a) - due(b) || b.number - a.number);
  const nothing = open.length === 0 && closed.length === 0;
  const first = sorted.find((trial) => trial.burning.length > 0 || trial.ready > 0)?.id;
  return (
    <PageLayout
      title="Burn"
      lead="Test one change at a time, with checks at set times."
      actions={
        <>
          <Link className={first || nothing ? "press" : "action-button"} href="/burn/new" {...(first || nothing ? {} : { "data-next-step": "" })}>
            Design a trial
          </Link>
          <Link className="press" href="/burn/proven">
            What is proven
          </Link>
          <Link className="press" href="/burn/wicks">
            Proven wicks
          </Link>
        </>
      }
      side={
        <>
          <BurningCandleCaution />
          <Aside title="One thing at a time">
            Compare wicks with everything else the same, two candles of each. A change of scent, or of load by more than a point, needs a new test.
          </Aside>
          <Aside title="Half jars first">A half-filled jar gives an early result for that half. It never counts as a full pass.</Aside>
        </>
      }
    >
      {nothing && !narrowed ? (
        <Empty
          title="No burn test yet"
          action={
            <Link className="action-button" href="/burn/new" data-next-step>
              Design the first trial
            </Link>
          }
        >
          <p>
            A trial pours test candles or takes them from the rack, reminds you of each check, and shows the result: safe or not, the melt pool, one change.
          </p>
        </Empty>
      ) : (
        <>
          <FindBar what="the trials" {...filters} found={older || newer ? undefined : open.length + closed.length} />
          {nothing ? <NothingFound what="trial" /> : null}
          <ul className={sorted.length > 0 ? "border-t-[3px] border-ink" : ""}>
            {sorted.map((trial) => (
              <Row key={trial.id} trial={trial} now={now} first={trial.id === first} />
            ))}
          </ul>
          {closed.length > 0 ? (
            <>
              <h2 className="mt-6 border-b-[3px] border-ink pb-1">Closed</h2>
              <ul>
                {closed.map((trial) => (
                  <Row key={trial.id} trial={trial} now={now} first={false} />
                ))}
              </ul>
            </>
          ) : null}
        </>
      )}
      <OlderNewer older={older} newer={newer} what="trials" />
    </PageLayout>
  );
}
