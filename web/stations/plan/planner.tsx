"use client";

import { useState } from "react";
import { AddBeside } from "@/catalogue/add-beside";
import { Chooser } from "@/forms/chooser";
import { likeliest } from "@/forms/matches";
import { Link } from "@/ui/address";
import { commonScale } from "@/ui/jar-section";
import { Empty, Screen } from "@/ui/margin";
import { Said } from "@/ui/said";
import { useUnits } from "@/ui/units";
import { Bodies } from "./bodies";
import { ChooseMade } from "./choose-made";
import { InSight } from "./in-sight";
import { costsOf } from "./model";
import { PlanMargin } from "./plan-margin";
import { PlanTerms } from "./plan-terms";
import { ToWeigh } from "./to-weigh";
import { type Begun, type Planning, usePlanning } from "./use-planning";

/** What is to be weighed, and the start of it. */
function Weighed({ planning, begun }: { planning: Planning; begun: Begun }) {
  const { worked, pots, inPots, said, busy, reading, stop, scales, begin, picked, known } = planning;
  const chosen = begun.formula;
  const idle = busy || reading || !chosen || stop !== null || scales.length === 0;
  return (
    <section className="sheet self-start xl:sticky xl:top-3 xl:max-h-[calc(100vh-24px)] xl:overflow-auto" aria-live="polite">
      <h2>To weigh</h2>
      {worked?.ok ? (
        <ToWeigh
          planned={worked.planned}
          plan={worked.plan}
          stocks={known.stocks}
          fragrances={known.shelf.fragrances}
          shared={planning.shared}
          costs={costsOf(worked.plan, known.stocks, picked, begun.products, begun.rates)}
        />
      ) : (
        <p className="mt-2 text-soft">
          {pots > inPots.length
            ? `This process works ${pots} pots: choose a formula for each.`
            : chosen
              ? "Type how many of each, and the weights appear here as you type."
              : "Choose a formula, then how many of each."}
        </p>
      )}
      <Said className="mt-3">{said}</Said>
      <button type="button" className="act mt-4 w-full" data-next-step disabled={idle} onClick={() => begin()}>
        {busy ? "Starting" : "Start the batch"}
      </button>
      <button type="button" className="press mt-2 w-full" disabled={idle} onClick={() => begin(true)}>
        Rehearse it first, with a simulated pot
      </button>
    </section>
  );
}

/** Works out what to weigh for what is to be made, and starts the batch. */
export function Planner(begun: Begun) {
  const units = useUnits();
  const planning = usePlanning(begun);
  const { fields, known, draft, bodies, lines, others, choices, choice, choose, add, picked, fillAt, planned, fault, reading } = planning;
  const { formula: chosen, names } = begun;
  const { shelf, stocks, lately } = known;
  const [adding, setAdding] = useState<string | null>(null);

  if (names.length === 0)
    return (
      <Screen title="Plan a batch">
        <Empty
          title="No formula to plan from"
          action={
            <Link className="act" data-next-step href="/formulas/new">
              Make a formula
            </Link>
          }
        >
          <p>A batch is worked out from a formula: how much wax and fragrance for how many of which vessels.</p>
        </Empty>
      </Screen>
    );
  if (bodies.length === 0)
    return (
      <Screen title="Plan a batch">
        <Empty
          title="No vessel to fill"
          action={
            <Link className="act" data-next-step href="/shelf">
              Go to the shelf
            </Link>
          }
        >
          <p>Put the jars, cups and moulds you fill on the shelf, with their fill weights. Then the amounts follow from how many of each you want.</p>
        </Empty>
      </Screen>
    );
  return (
    <Screen
      title="Plan a batch"
      actions={
        <>
          <Link className="press" href="/plan/wanted">
            What is wanted
          </Link>
          <Link className="press" href="/plan/day">
            A day at the pots
          </Link>
          <Link className="press" href="/plan/fill">
            What can I fill?
          </Link>
        </>
      }
      lead={chosen ? `${chosen.name}, version ${chosen.number}: ${units.percent(chosen.spec.loadPpm)} of the ${chosen.spec.basis}` : "Choose a formula first."}
      side={
        <>
          {draft.offer}
          <PlanMargin
            noScale={planning.scales.length === 0}
            fault={fault && fault.field !== "pitcher_capacity_g" ? fault.message : null}
            stop={planning.stop?.message ?? null}
            picked={picked}
            fillAt={fillAt}
            lacking={planning.lacking}
            warnings={planning.warnings}
          />
        </>
      }
    >
      {/* Enter in a count starts nothing: starting is its own button. */}
      <form ref={fields.form} className="grid grid-cols-1 gap-6 xl:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]" onSubmit={(event) => event.preventDefault()}>
        <section className="sheet">
          <ChooseMade
            formulas={known.whole?.formulas ?? names}
            chosen={chosen}
            others={others}
            choices={choices}
            choice={choice}
            onLook={known.look}
            onFormula={(id) => choose([id])}
            onOther={(at, id) => choose([chosen?.id ?? "", ...others.map((one, index) => (index === at ? id : (one?.id ?? "")))])}
            onChoice={planning.setChoice}
          />
          <h2 className="mt-4">How many of which</h2>
          {reading ? (
            <p role="status" className="text-soft">
              Reading the formula
            </p>
          ) : null}
          <Bodies
            lines={lines}
            fillOf={fillAt}
            picked={new Set(picked.map((one) => one.key))}
            wicks={shelf.wicks}
            fields={fields}
            scale={commonScale(
              lines.map((one) => one.body),
              84,
              120,
            )}
            onLook={known.look}
          />
          <div className="mt-3">
            <Chooser
              label="Another vessel or mould"
              value=""
              options={likeliest(
                bodies.filter((one) => !lines.some((line) => line.body.id === one.id)),
                lately,
                (id) => stocks[id]?.onHand,
              ).map((one) => ({ value: one.id, name: one.name, note: units.g(one.workingFillMg) }))}
              onLook={known.look}
              onValue={(id) => {
                add(id);
                requestAnimationFrame(() => (fields.form.current?.elements.namedItem(`count:${id}`) as HTMLElement | null)?.focus());
              }}
              add={{ label: "a new vessel", act: setAdding }}
            />
          </div>
          <PlanTerms planning={planning} />
        </section>
        <Weighed planning={planning} begun={begun} />
      </form>
      {adding === null ? null : (
        <AddBeside
          kind="vessel"
          name={adding}
          waxes={shelf.waxes}
          onDone={() => setAdding(null)}
          onMade={async (id) => {
            await known.again();
            add(id);
            setAdding(null);
          }}
        />
      )}
      {planned ? <InSight planned={planned} /> : null}
    </Screen>
  );
}
