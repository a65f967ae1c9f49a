"use client";

import { useState } from "react";
import { v7 } from "uuid";
import type { ShelfFormProps } from "@/catalogue/shelf-form";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import { saveOnShelf } from "@/server/inventory/shelf-save";
import type { First } from "@/server/workshops/onboarding";
import { Link } from "@/ui/address";
import { lazy } from "@/ui/lazy";
import { Aside, HotWaxCaution, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { Formula } from "./formula-step";
import { isDone, nextStep, STEPS, type Step, TITLES } from "./model";
import { Jar, Oil, type Put, Tools, Wax, Wick } from "./steps";

const ShelfForm = lazy<ShelfFormProps>(async () => (await import("@/catalogue/shelf-form")).ShelfForm, { typed: true });

const WHY: Record<Step, string> = {
  tools: "Everything here is by weight and temperature. What your scale can show decides how exactly a jar can be filled.",
  wax: "Start with one wax. With two, you could not tell which of them caused a result.",
  jar: "Weigh the water that the jar holds, and the wax follows from it. With a guess, the last jar comes up short.",
  oil: "Start with one scent. How strong it smells in the bottle says little about how strong it is when it burns.",
  wick: "A wick that is too small drowns or tunnels; one that is too large soots. Start with the supplier's suggestion, and test it.",
  formula: "The weight of oil for the weight of wax. More oil does not mean more scent: above what the wax holds, candles sweat and soot.",
  batch: "Three jars: one to burn, one to keep beside it, one to give away. The program calculates the weights and guides you through the pot step by step.",
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
        <Link
          className="action-button mt-3"
          data-next-step
          href={`/plan?formula=${first.formula?.id ?? ""}&fill=${first.product?.id ?? first.vessel?.id ?? ""}:3`}
        >
          Work out three jars
        </Link>
      );
  }
}

/** What a finished step put on the shelf, to be put right where it stands; a formula and a product are changed on their own pages. */
function ChangeDone({ step, first, onDone }: { step: Step; first: First; onDone: () => void }) {
  const waxes = first.wax ? [first.wax] : [];
  const rows = (
    {
      tools: [
        ["instrument", first.scale],
        ["instrument", first.thermometer],
      ],
      wax: [["wax", first.wax]],
      jar: [["vessel", first.vessel]],
      oil: [["fragrance", first.fragrance]],
      wick: [["wick", first.wick]],
      formula: [],
      batch: [],
    } as const
  )[step];
  if (step === "formula")
    return (
      <p className="mt-2 flex flex-wrap gap-2 pl-10 max-sm:pl-0">
        {first.formula ? (
          <Link className="press" href={`/formulas/${first.formula.id}`}>
            Change the formula
          </Link>
        ) : null}
        {first.product ? (
          <Link className="press" href={`/products/${first.product.id}`}>
            Change the product
          </Link>
        ) : null}
      </p>
    );
  return (
    <div className="pl-10 max-sm:pl-0">
      {rows.map(([kind, row]) => (row ? <ShelfForm key={row.id} kind={kind} row={row as ShelfFormProps["row"]} waxes={waxes} onDone={onDone} /> : null))}
    </div>
  );
}

const said = (step: Step, first: First): string =>
  ({
    tools: [first.scale?.name, first.thermometer?.name].filter(Boolean).join(", "),
    wax: first.wax?.name ?? "",
    jar: first.vessel?.name ?? "",
    oil: first.fragrance?.name ?? "",
    wick: first.wick?.name ?? "",
    formula: [first.formula?.name, first.product?.name].filter(Boolean).join("; "),
    batch: "started",
  })[step];

/** From nothing to three poured jars, a step at a time; each can be left, and come back to. */
export function FirstBatch({ first }: { first: First }) {
  const workshop = useWorkshop();
  const units = useUnits();
  const next = nextStep(first);
  const [open, setOpen] = useState<Step | null>(null);
  const [changing, setChanging] = useState<Step | null>(null);
  const put: Put = async (kind, values) => {
    const out = await callAction(saveOnShelf(workshop, { kind, id: null, freshId: v7(), expectedVersion: null, values }));
    return out.ok ? { ok: true } : out;
  };
  const shown = open && !isDone(open, first) ? open : next;
  return (
    <PageLayout
      title="Your first batch"
      lead="One wax, one jar, one scent. You can leave at any step: what you entered is kept, and you continue from there."
      side={
        <>
          <HotWaxCaution />
          <Aside title="Usual figures">The figures filled in are typical. Compare batches with your supplier's data, which comes first.</Aside>
          <Aside title="Any unit">{units.say("Type any unit you like: {180 g, 1.2 kg|6.3 oz, 1 lb 4 oz}, {85 °C|185 °F}, {78 mm or 7.8 cm|3 1/8 in}.")}</Aside>
        </>
      }
    >
      <ol>
        {STEPS.map((step, index) => {
          const done = isDone(step, first);
          const isCurrent = shown === step;
          return (
            <li key={step} className={`border-b border-line py-3 ${isCurrent ? "sheet !border-b-0" : ""}`} aria-current={isCurrent ? "step" : undefined}>
              <div className="flex items-baseline gap-4">
                <span className={`figure text-[26px] ${done ? "text-inside" : ""}`}>{done ? "✓" : index + 1}</span>
                <h2 className="flex-1">
                  {TITLES[step]} {done ? <span className="font-normal text-soft">{said(step, first)}</span> : null}
                </h2>
                {done ? (
                  step === "batch" ? null : (
                    <button
                      type="button"
                      className="press"
                      aria-expanded={changing === step}
                      aria-label={`Change: ${TITLES[step]}`}
                      onClick={() => setChanging(changing === step ? null : step)}
                    >
                      Change
                    </button>
                  )
                ) : isCurrent ? null : (
                  <button type="button" className="press" onClick={() => setOpen(step)} aria-label={`Go to: ${TITLES[step]}`}>
                    Go to it
                  </button>
                )}
              </div>
              {done && changing === step ? <ChangeDone step={step} first={first} onDone={() => setChanging(null)} /> : null}
              {isCurrent && !done ? (
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
          Your first batch is started.{" "}
          <Link className="underline" href="/">
            Go to today
          </Link>{" "}
          to see what comes next.
        </p>
      ) : null}
    </PageLayout>
  );
}
