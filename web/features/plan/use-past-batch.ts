"use client";

import { notedPrompts } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { useDraft } from "@/catalogue/draft";
import { callAction } from "@/forms/call-action";
import { useFields } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { recordPastBatch, undoBatch } from "@/server/batches/commands";
import { useRouter } from "@/ui/address";
import { toast } from "@/ui/toast";
import { useNow, useUnits } from "@/ui/units";
import { begunAt, missingBesideTimes, momentsOfSteps, pastOf, pastRules, plannedText, valueKind } from "./past-fields";
import { type PlannerState, startOf, useOnceWorked } from "./use-planner";

/** What was noted of a batch that is already made, as it is typed, and how it is recorded. */
export function usePastBatch(plan: PlannerState, onRecorded: () => void) {
  const units = useUnits();
  const now = useNow(30_000);
  const workshop = useWorkshop();
  const router = useRouter();
  const batchPlan = plan.worked?.ok ? plan.worked.plan : null;
  const prompts = useMemo(() => (batchPlan ? notedPrompts(batchPlan) : []), [batchPlan]);
  const [flaws, setFlaws] = useState<number[]>([]);
  const rules = useMemo(() => pastRules(batchPlan, flaws, { now, units }), [batchPlan, flaws, now, units]);
  const fields = useFields(rules);
  const begun = begunAt(fields.values, now, units.zone);
  const moments = momentsOfSteps(prompts, fields.values, begun, now, units);
  const draft = useDraft("past batch", { ...fields.typed, flaws: flaws.join() }, ({ flaws: lines, ...typed }) => {
    setFlaws((lines ?? "").split(",").filter(Boolean).map(Number));
    fields.fill(typed);
  });
  const [batchId] = useState(() => v7());
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();

  const undo = async (id: string) => {
    const outcome = await callAction(undoBatch(workshop, { batchId: id }));
    if (!outcome.ok) return toast(outcome.message);
    toast("The past batch is removed.");
    router.push("/plan/past");
  };
  const record = useOnceWorked(plan, () => {
    setMessage("");
    const wanted = startOf(plan, batchId, false);
    if (typeof wanted === "string") return setMessage(wanted);
    const values = fields.check();
    if (!values || !batchPlan || begun === null) return;
    const missing = missingBesideTimes(prompts, flaws, values);
    if (Object.keys(missing).length > 0) return fields.refuse(missing);
    if (Object.keys(moments.faults).length > 0) return fields.refuse(Object.fromEntries(Object.entries(moments.faults).map(([name, why]) => [name, [why]])));
    start(async () => {
      const past = pastOf(batchPlan, flaws, values, moments.at);
      const outcome = await callAction(recordPastBatch(workshop, { wanted: { ...wanted, startedAt: begun }, past }));
      if (!outcome.ok) {
        fields.refuse(atFields(outcome.fields ?? {}));
        return setMessage(outcome.message);
      }
      const { id, number, entries } = outcome.value;
      draft.drop();
      onRecorded();
      toast(`Batch ${number} is recorded, with ${entries} ${entries === 1 ? "entry" : "entries"}.`, {
        action: { label: "Undo", onClick: () => void undo(id) },
      });
      router.push(`/records/${id}`);
    });
  });
  /** The fields that the server's are shown at: a flaw's at its count, a pour's at what was filled. */
  const atFields = (refused: Record<string, string[]>) =>
    Object.fromEntries(
      Object.entries(refused).map(([name, messages]) => {
        const flaw = /^value:flaw:(\d+)$/.exec(name);
        if (flaw) return [`flaw:${flaws[Number(flaw[1])]}:jars`, messages];
        const isPour = prompts.some((prompt) => name === `value:${prompt.key}` && valueKind(prompt) === null);
        return [isPour ? `filled:${batchPlan?.products[0]?.key}` : name, messages];
      }),
    );
  return {
    ...{ now, batchPlan, prompts, fields, flaws, begun, moments, draft, message, busy, record },
    /** Fills in what the plan has for each step that nothing is typed for: weights, counts, times of stirring, and that the rest was done. */
    takePlanned: () =>
      fields.fill(
        Object.fromEntries(
          prompts.flatMap((prompt) => {
            const text = plannedText(prompt, units);
            return text && fields.text(`value:${prompt.key}`) === "" ? [[`value:${prompt.key}`, text]] : [];
          }),
        ),
      ),
    addFlaw: () => setFlaws((all) => [...all, Math.max(-1, ...all) + 1]),
    removeFlaw: (id: number) => setFlaws((all) => all.filter((other) => other !== id)),
  };
}
export type PastState = ReturnType<typeof usePastBatch>;
