"use client";

import {
  bandsOf,
  CONTAINER_KINDS,
  inUnit,
  PRESET_PROCESSES,
  type PresetProcess,
  type Process,
  potsOf,
  processFaults,
  processFrom,
  STEP_TYPES,
  type Step,
  stepChanges,
  stepTypeOf,
} from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { callAction } from "@/forms/call-action";
import { Field, useFields } from "@/forms/fields";
import { processFromFields, processRules, processTexts, StepFields } from "@/forms/process-fields";
import { useWorkshop } from "@/log/workshop";
import { saveProcess } from "@/server/formulas/commands";
import type { Follower } from "@/server/formulas/processes";
import { Link, useRouter } from "@/ui/address";
import { HeatLine } from "@/ui/heat-line";
import { Aside, HotWaxCaution, PageLayout } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { Followers } from "./followers";

export interface ProcessShown {
  id: string;
  name: string;
  version: number;
  versions: { number: number; process: Process }[];
}

/** A short word that no step of the process has yet. */
function newId(kind: string, steps: readonly Step[]): string {
  for (let n = 1; ; n++) {
    const id = n === 1 ? kind : `${kind}-${n}`;
    if (!steps.some((step) => step.id === id)) return id;
  }
}

/** Makes or changes a process of the workshop's own: steps in order, each with what it says. */
export function ProcessEditor({ kept, followers = [] }: { kept: ProcessShown | null; followers?: Follower[] }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const newest = kept?.versions[0] ?? null;
  const [process, setProcess] = useState<Process>(
    () => newest?.process ?? { ...inUnit(processFrom(PRESET_PROCESSES[0] as PresetProcess), units.temperature), name: "" },
  );
  const rules = useMemo(() => processRules(process, units), [process, units]);
  const fields = useFields(rules);
  const [adding, setAdding] = useState("wait");
  const [message, setMessage] = useState<{ good: boolean; text: string } | null>(null);
  const [busy, start] = useTransition();
  // Without a name it can be seen already, and not be saved: its field asks for one.
  const typed = processFromFields(process, fields.values, "no name yet");
  const missing = typed ? (processFaults(typed.steps)[0]?.message ?? null) : "Check the marked fields.";
  const drafted = missing ? null : typed;
  const pots = Math.max(1, potsOf(process.steps));

  const take = (next: Process) => {
    setProcess(next);
    fields.fill({ ...processTexts(next, units), processName: fields.text("processName") || next.name });
  };
  const change = (steps: Step[]) => setProcess((old) => ({ ...old, steps }));
  const move = (at: number, by: number) => {
    const steps = [...process.steps];
    const [step] = steps.splice(at, 1);
    if (step) steps.splice(at + by, 0, step);
    change(steps);
  };
  const add = () => {
    const kind = STEP_TYPES.find((stepType) => stepType.kind === adding);
    if (!kind) return;
    const step = { id: newId(kind.kind, process.steps), kind: kind.kind, ...kind.first } as unknown as Step;
    // Before setting and curing, which end a process.
    const end = process.steps.findIndex((step) => stepTypeOf(step.kind).afterPour !== undefined);
    const steps = [...process.steps];
    steps.splice(end < 0 ? steps.length : end, 0, step);
    change(steps);
  };
  const save = () => {
    if (!fields.check()) return setMessage(null);
    if (!drafted) return setMessage({ good: false, text: missing ?? "" });
    start(async () => {
      const outcome = await callAction(saveProcess(workshop, { id: kept?.id ?? null, expectedVersion: kept?.version ?? null, process: drafted }));
      if (!outcome.ok) {
        fields.refuse(outcome.fields.name ? { processName: outcome.fields.name } : {});
        return setMessage({ good: false, text: outcome.message });
      }
      const { number } = outcome.value;
      const behind = followers.filter((follower) => follower.number < number).length;
      const still =
        behind === 0 ? "" : behind === 1 ? " One formula is still on an older one: see below." : ` ${behind} formulas are still on an older one: see below.`;
      setMessage({ good: true, text: `Saved, version ${number}.${still}` });
      if (kept) router.refresh();
      else router.push(`/formulas/processes/${outcome.value.id}`);
    });
  };
  return (
    <PageLayout
      title={kept ? kept.name : "New process"}
      lead={newest ? `Version ${newest.number}: changes save as version ${newest.number + 1}` : "Steps, their order and temperatures."}
      actions={
        <>
          <Link className="press" href="/formulas/processes">
            All processes
          </Link>
          <button type="submit" form="process-form" className="action-button" data-next-step disabled={busy}>
            {busy ? "Saving" : "Save the process"}
          </button>
          {message ? (
            <p role="status" className={`w-full font-semibold sm:text-right ${message.good ? "text-inside" : "text-hot"}`}>
              {message.good ? "✓ " : "▲ "}
              {message.text}
            </p>
          ) : null}
        </>
      }
      side={
        <>
          {missing ? <Aside title="Incomplete">{missing}</Aside> : null}
          <Aside title="Order">The bench shows one step at a time. You can still enter steps out of order: choose one at the pot.</Aside>
          <Aside title="Shares">All pours together come to 100 % of each fill; what is kept back for a second pour is part of it.</Aside>
          <Aside title="Ranges">Ranges are targets. The supplier's data, local rules and qualified advice come first.</Aside>
          <HotWaxCaution />
        </>
      }
    >
      <form
        id="process-form"
        ref={fields.form}
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <section className="sheet mb-5">
          <div className="grid gap-x-4 sm:grid-cols-[1fr_1fr_120px]">
            <Field label="Name" {...fields.bind("processName")} />
            <div>
              <label htmlFor="begin" className="mb-1 block text-[15px] font-semibold">
                Begin from
              </label>
              <select
                id="begin"
                className="entry"
                value=""
                onChange={(event) => {
                  const ready = PRESET_PROCESSES.find((preset) => preset.id === event.target.value);
                  if (ready) take(inUnit(processFrom(ready), units.temperature));
                }}
              >
                <option value="">the steps below</option>
                {PRESET_PROCESSES.map((preset) => (
                  <option key={preset.id} value={preset.id}>
                    {preset.name}
                  </option>
                ))}
              </select>
            </div>
            <Field label="Maximum temperature" unit={`°${units.temperature}`} {...fields.bind("ceiling")} />
          </div>
          <Field label="Why these temperatures" lines={2} {...fields.bind("reason")} />
          <HeatLine bands={drafted ? bandsOf(drafted) : []} ceiling={process.ceiling} marks={[]} height={160} label="The ranges of this process" />
        </section>
        <ol aria-label="Steps">
          {process.steps.map((step, index) => {
            const kind = stepTypeOf(step.kind);
            return (
              <li key={step.id} className="grid items-start gap-x-4 border-b border-line py-2 sm:grid-cols-[120px_minmax(0,1fr)_auto]">
                <div>
                  <strong className="text-[18px]">
                    {index + 1}. {kind.verb}
                  </strong>
                  <label className="block text-[14px] text-soft">
                    pot{" "}
                    <select
                      aria-label={`Pot of ${kind.verb} ${index + 1}`}
                      className="border border-line bg-sheet"
                      value={step.pot ?? 0}
                      onChange={(event) => {
                        const pot = Number(event.target.value);
                        change(process.steps.map((item) => (item.id === step.id ? ({ ...item, pot: pot === 0 ? undefined : pot } as Step) : item)));
                      }}
                    >
                      {Array.from({ length: Math.min(8, pots + 1) }, (_, n) => (
                        <option key={n} value={n}>
                          {n + 1}
                        </option>
                      ))}
                    </select>
                  </label>
                  {kind.pours ? null : (
                    <label className="block text-[14px] text-soft">
                      for{" "}
                      <select
                        aria-label={`What ${kind.verb} ${index + 1} is for`}
                        className="border border-line bg-sheet"
                        value={step.only ?? ""}
                        onChange={(event) => {
                          const only = event.target.value || undefined;
                          change(process.steps.map((item) => (item.id === step.id ? ({ ...item, only } as Step) : item)));
                        }}
                      >
                        <option value="">all</option>
                        {CONTAINER_KINDS.map((name) => (
                          <option key={name} value={name}>
                            {name} only
                          </option>
                        ))}
                      </select>
                    </label>
                  )}
                </div>
                <div className="grid grid-cols-1 gap-x-4 sm:grid-cols-3">
                  <StepFields step={step} fields={fields} units={units} number={index + 1} />
                </div>
                <div className="flex gap-1">
                  <button
                    type="button"
                    className="press !px-2"
                    disabled={index === 0}
                    aria-label={`Move ${kind.verb} ${index + 1} up`}
                    onClick={() => move(index, -1)}
                  >
                    ↑
                  </button>
                  <button
                    type="button"
                    className="press !px-2"
                    disabled={index === process.steps.length - 1}
                    aria-label={`Move ${kind.verb} ${index + 1} down`}
                    onClick={() => move(index, 1)}
                  >
                    ↓
                  </button>
                  <button
                    type="button"
                    className="press !px-2"
                    aria-label={`Leave out ${kind.verb} ${index + 1}`}
                    onClick={() => change(process.steps.filter((item) => item.id !== step.id))}
                  >
                    ✕
                  </button>
                </div>
              </li>
            );
          })}
        </ol>
        <div className="mt-3 flex flex-wrap items-end gap-3">
          <label className="font-semibold">
            Add a step
            <select className="entry mt-1" value={adding} onChange={(event) => setAdding(event.target.value)}>
              {STEP_TYPES.map((stepType) => (
                <option key={stepType.kind} value={stepType.kind}>
                  {stepType.verb}
                </option>
              ))}
            </select>
          </label>
          <button type="button" className="press" onClick={add}>
            Add step
          </button>
        </div>
      </form>
      {kept && newest ? <Followers process={{ id: kept.id, number: newest.number, process: newest.process }} followers={followers} /> : null}
      {kept && kept.versions.length > 1 ? (
        <section className="mt-8">
          <h2 className="border-b-[3px] border-ink pb-1">Versions</h2>
          <ol>
            {kept.versions.map((version, index) => {
              const before = kept.versions[index + 1];
              return (
                <li key={version.number} className="grid grid-cols-[60px_1fr] gap-4 border-b border-line py-2">
                  <span className="figure text-[24px]">{version.number}</span>
                  <span>
                    {before
                      ? stepChanges(before.process, version.process, units.temperature)
                          .map((change) => `${change.what} ${change.from} → ${change.to}`)
                          .join("; ") || "its name, ceiling or reason"
                      : "the first"}
                  </span>
                </li>
              );
            })}
          </ol>
        </section>
      ) : null}
    </PageLayout>
  );
}
