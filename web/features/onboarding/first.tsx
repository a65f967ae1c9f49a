"use client";

import { useState } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import { saveOnShelf } from "@/server/inventory/shelf-save";
import type { First } from "@/server/workshops/onboarding";
import { Link } from "@/ui/address";
import { Aside, Caution, PageLayout } from "@/ui/side-notes";
import { isDone, nextStep, STEPS, type Step, TITLES } from "./model";
import { Formula, Jar, Oil, type Put, Tools, Wax, Wick } from "./steps";

const WHY: Record<Step, string> = {
  tools: "Everything here is by weight and temperature. What your scale can show decides how exactly a jar can be filled.",
  wax: "One wax first. With two you would never know which of them did what.",
  jar: "How much a jar holds is found by water: weigh the water, and the wax follows. Guessing fills the last jar short.",
  oil: "One scent first. How strong a bottle smells says little of how it throws when it burns.",
  wick: "Too small a wick drowns or tunnels, too large a one soots. You begin with one that is said to fit, and test it.",
  formula: "How much oil to how much wax, always by weight. More oil is not more scent: past what the wax holds it sweats and soots.",
  batch: "Three jars: one to burn, one to keep beside it, one to give away. Now the weights are worked out and the pot is led step by step.",
};

function Body({ step, first, put }: { step: Step; first: First; put: Put }) {
  switch (step) {
    case "tools":
      return <Tools first={first} put={put} />;
    case "wax":
      return <Wax put={put} />;
    case "jar":
      return <Jar put={put} />;
    case "oil":
      return <Oil put={put} />;
    case "wick":
      return <Wick first={first} put={put} />;
    case "formula":
      return <Formula first={first} />;
    case "batch":
      return (
        <Link className="act mt-3" data-next-step href={`/plan?formula=${first.formula?.id ?? ""}&fill=${first.vessel?.id ?? ""}:3`}>
          Work out three jars
        </Link>
      );
  }
}

const said = (step: Step, first: First): string =>
  ({
    tools: [first.scale?.name, first.thermometer?.name].filter(Boolean).join(", "),
    wax: first.wax?.name ?? "",
    jar: first.vessel?.name ?? "",
    oil: first.fragrance?.name ?? "",
    wick: first.wick?.name ?? "",
    formula: first.formula?.name ?? "",
    batch: "started",
  })[step];

/** From nothing to three poured jars, a step at a time; each can be left, and come back to. */
export function FirstBatch({ first }: { first: First }) {
  const place = useWorkshop();
  const next = nextStep(first);
  const [open, setOpen] = useState<Step | null>(null);
  const put: Put = async (kind, values) => {
    const out = await callAction(saveOnShelf(place, { kind, id: null, freshId: v7(), expectedVersion: null, values }));
    return out.ok ? { ok: true } : out;
  };
  const shown = open && !isDone(open, first) ? open : next;
  return (
    <PageLayout
      title="Your first batch"
      lead="One wax, one jar, one scent. Leave at any step: what you have put in stays, and you go on from there."
      side={
        <>
          <Caution title="Hot wax">Never leave it. No water near it. A wax fire is smothered, never watered. Gloves, eye protection, fresh air.</Caution>
          <Aside title="Usual figures">Figures that are filled in are usual ones. Hold them against your supplier's sheet: it comes first.</Aside>
          <Aside title="Any unit">Type any unit you like: 180 g, 6.3 oz, 185F, 3 1/8 in.</Aside>
        </>
      }
    >
      <ol>
        {STEPS.map((step, index) => {
          const done = isDone(step, first);
          const here = shown === step;
          return (
            <li key={step} className={`border-b border-line py-3 ${here ? "sheet !border-b-0" : ""}`} aria-current={here ? "step" : undefined}>
              <div className="flex items-baseline gap-4">
                <span className={`figure text-[26px] ${done ? "text-inside" : ""}`}>{done ? "✓" : index + 1}</span>
                <h2 className="flex-1">
                  {TITLES[step]} {done ? <span className="font-normal text-soft">{said(step, first)}</span> : null}
                </h2>
                {here || done ? null : (
                  <button type="button" className="press" onClick={() => setOpen(step)} aria-label={`Go to: ${TITLES[step]}`}>
                    Go to it
                  </button>
                )}
              </div>
              {here && !done ? (
                <div className="pl-10 max-sm:pl-0">
                  <p className="max-w-[640px]">{WHY[step]}</p>
                  <Body key={step} step={step} first={first} put={put} />
                </div>
              ) : null}
            </li>
          );
        })}
      </ol>
      {next === null ? (
        <p className="mt-4 text-[18px]">
          Your first batch is begun.{" "}
          <Link className="underline" href="/">
            Go to today
          </Link>{" "}
          to see what it wants next.
        </p>
      ) : null}
    </PageLayout>
  );
}
