"use client";

import { addDays, defectsFor, EXTENT_WORDS, EXTENTS, namedLines, PLACE_WORDS, PLACES, type Prompt, WARMED, WARMED_WORDS, writeDuration } from "@hearth/core";
import { Field } from "@/forms/fields";
import { FormMessage } from "@/ui/form-message";
import { useUnits } from "@/ui/units";
import { plannedText, valueKind } from "./past-fields";
import type { PastState } from "./use-past-batch";
import type { PlannerState } from "./use-planner";

/** The field that the work goes on with once the jars are counted. */
export const FIRST_NOTED = "day";

const NOT_NOTED = { value: "", label: "not noted" };

/** One step: its figure, and when it was done. */
function StepRow({ prompt, past }: { prompt: Prompt; past: PastState }) {
  const units = useUnits();
  const { fields, moments } = past;
  const kind = valueKind(prompt);
  const at = moments.at[prompt.key];
  const time = fields.bind(`time:${prompt.key}`);
  const target = prompt.range
    ? units.range(prompt.range)
    : prompt.component
      ? `calculated ${plannedText(prompt, units)}`
      : prompt.seconds
        ? writeDuration(prompt.seconds)
        : prompt.least
          ? `at least ${writeDuration(prompt.least)}`
          : "";
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-3 border-b border-line pt-2 sm:grid-cols-[minmax(0,1fr)_116px_132px]">
      <div className="col-span-2 sm:col-span-1">
        <div className="font-semibold break-words first-letter:uppercase">{prompt.name}</div>
        {target ? <div className="text-[14px] text-soft">{target}</div> : null}
      </div>
      {kind === null ? (
        <span />
      ) : kind === "done" ? (
        <Field label="Done" of={prompt.name} narrow {...fields.bind(`value:${prompt.key}`)} options={[NOT_NOTED, { value: "done", label: "done" }]} />
      ) : (
        <Field
          label={prompt.entry === "read" ? "Read" : prompt.entry === "stirred" ? "For" : prompt.entry === "counted" ? "Counted" : "Weighed"}
          of={prompt.name}
          narrow
          {...fields.bind(`value:${prompt.key}`)}
          inputMode={prompt.entry === "stirred" ? "text" : "decimal"}
          {...(prompt.entry === "read" ? { unit: `°${units.temperature}` } : {})}
        />
      )}
      <Field label="Time" of={prompt.name} narrow {...time} error={time.error || moments.faults[`time:${prompt.key}`] || ""} echo={at ? units.clock(at) : ""} />
    </li>
  );
}

/** One flaw: which, where, how far it goes, on how many. */
function FlawRow({ id, past, family }: { id: number; past: PastState; family: string }) {
  const { fields, batchPlan } = past;
  const products = namedLines(batchPlan?.products ?? []);
  const container = products.some((product) => product.container !== "mold") ? "vessel" : "mold";
  return (
    <li className="flex flex-wrap items-start gap-x-3 border-b border-line pt-2">
      <div className="w-[170px]">
        <Field
          label="Flaw"
          narrow
          {...fields.bind(`flaw:${id}:defect`)}
          options={[{ value: "", label: "choose" }, ...defectsFor({ family, container }).map((defect) => ({ value: defect.id, label: defect.name }))]}
        />
      </div>
      <div className="w-[120px]">
        <Field label="Where" narrow {...fields.bind(`flaw:${id}:place`)} options={PLACES.map((place) => ({ value: place, label: PLACE_WORDS[place] }))} />
      </div>
      <div className="w-[130px]">
        <Field
          label="Extent"
          narrow
          {...fields.bind(`flaw:${id}:extent`)}
          options={EXTENTS.map((extent) => ({ value: extent, label: EXTENT_WORDS[extent] }))}
        />
      </div>
      {products.length > 1 ? (
        <div className="w-[170px]">
          <Field
            label="Vessel"
            narrow
            {...fields.bind(`flaw:${id}:product`)}
            options={[{ value: "", label: "choose" }, ...products.map((product) => ({ value: product.key, label: product.name }))]}
          />
        </div>
      ) : null}
      <div className="w-[84px]">
        <Field label="Jars" narrow {...fields.bind(`flaw:${id}:jars`)} inputMode="numeric" />
      </div>
      <button type="button" className="press mt-6 !min-h-[44px]" onClick={() => past.removeFlaw(id)}>
        Remove
      </button>
    </li>
  );
}

/** What was noted of the batch: its day, each step with its time, the jars filled, the flaws, a remark. */
export function PastNotes({ plan, past }: { plan: PlannerState; past: PastState }) {
  const units = useUnits();
  const { fields, batchPlan, prompts, flaws, moments } = past;
  const thermometers = plan.known.shelf.instruments.filter((instrument) => instrument.kind !== "scale" && instrument.kind !== "tool" && !instrument.archived);
  const seenAt = fields.bind("seenAt");
  return (
    <form ref={fields.form} className="sheet self-start" onSubmit={(event) => event.preventDefault()}>
      <h2>What you noted</h2>
      <div className="mt-1 grid grid-cols-2 gap-x-4 sm:grid-cols-3">
        <Field label="Day" {...fields.bind(FIRST_NOTED)} placeholder={units.onDate(addDays(units.isoDay(past.now), -30))} />
        <Field
          label="Begun at"
          {...fields.bind("begun")}
          placeholder="noon"
          echo={past.begun && fields.text("begun") ? units.clock(past.begun) : ""}
          hint="Empty if you do not know."
        />
        <Field
          label="Thermometer"
          {...fields.bind("thermometer")}
          options={[NOT_NOTED, ...thermometers.map((instrument) => ({ value: instrument.id, label: instrument.name }))]}
        />
      </div>
      {batchPlan ? (
        <>
          <div className="mt-2 flex flex-wrap items-center justify-between gap-x-4">
            <h3>Steps</h3>
            <button type="button" className="press" onClick={past.takePlanned}>
              Fill in as calculated
            </button>
          </div>
          <p className="text-[15px] text-soft">
            A time is a time of day like {units.manner.hours === 24 ? "10:42" : "10:42 am"}, or how long after the step before, like 35 min. Leave it empty if
            you did not note it.
          </p>
          <ul>
            {prompts.map((prompt) => (
              <StepRow key={prompt.key} prompt={prompt} past={past} />
            ))}
          </ul>
          <h3 className="mt-4">Poured</h3>
          <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-4">
            {namedLines(batchPlan.products).map((product) => (
              <Field
                key={product.key}
                label="Jars filled"
                of={product.name}
                {...fields.bind(`filled:${product.key}`)}
                inputMode="numeric"
                hint={product.name}
              />
            ))}
            <Field
              label="Vessels warmed"
              {...fields.bind("warmed")}
              options={[NOT_NOTED, ...WARMED.map((item) => ({ value: item, label: WARMED_WORDS[item] }))]}
            />
            <Field label="Room" unit={`°${units.temperature}`} {...fields.bind("room")} inputMode="decimal" />
            <Field label="Leftover wax" unit={units.mass} {...fields.bind("left")} inputMode="decimal" />
          </div>
          <h3 className="mt-2">Inspection</h3>
          <div className="grid grid-cols-2 gap-x-4">
            {flaws.length > 0 ? (
              <p className="pt-2 text-soft">All jars were inspected; these flaws were found.</p>
            ) : (
              <Field label="Inspected" {...fields.bind("seen")} options={[NOT_NOTED, { value: "yes", label: "yes, no flaw found" }]} />
            )}
            <Field
              label="Inspected after"
              {...seenAt}
              error={seenAt.error || moments.faults.seenAt || ""}
              echo={moments.at.seen ? units.dayClock(moments.at.seen) : ""}
              placeholder="1 day"
            />
          </div>
          <ul>
            {flaws.map((id) => (
              <FlawRow key={id} id={id} past={past} family={batchPlan.pots[0]?.waxFamily ?? ""} />
            ))}
          </ul>
          <button type="button" className="press mt-2" onClick={past.addFlaw}>
            Add a flaw
          </button>
          <div className="mt-3">
            <Field label="Remark" {...fields.bind("remark")} lines={2} />
          </div>
        </>
      ) : (
        <p className="mt-2 text-soft">
          {plan.chosen ? "Enter how many of each were made to see its steps." : "Choose a formula, then how many of each were made."}
        </p>
      )}
      <FormMessage className="mt-2">{past.message}</FormMessage>
      <button type="button" className="action-button mt-3 w-full" disabled={past.busy || plan.reading || !batchPlan} onClick={() => past.record(undefined)}>
        {past.busy ? "Saving" : "Save the batch"}
      </button>
    </form>
  );
}
