"use client";

import { CUE_NAMES, CUES, type Cue } from "@hearth/core";
import { useState } from "react";
import type { Batch } from "@/log/use-batch";
import { FormMessage } from "@/ui/form-message";
import { Toggle } from "@/ui/toggle";

/** Marks a step with a range as done by what was seen and felt, where there is no thermometer. */
export function Observation({ batch, step }: { batch: Batch; step: string }) {
  const [open, setOpen] = useState(false);
  const [cues, setCues] = useState<Cue[]>([]);
  const [message, setMessage] = useState("");
  if (!open)
    return (
      <button type="button" className="press mt-2" onClick={() => setOpen(true)}>
        No thermometer?
      </button>
    );
  const save = async () => setMessage((await batch.record({ kind: "observed", payload: { step, cues } }))?.message ?? "");
  return (
    <section className="mt-3 w-full border-t border-line pt-2" aria-label="Without a thermometer">
      <h3 className="text-[17px] font-bold">What do you see and feel?</h3>
      <p className="text-[15px] text-soft">It marks the step as done. It is not a temperature: the heat line and the forecast leave it out.</p>
      <div className="mt-2 flex flex-wrap gap-2">
        {CUE_NAMES.map((name) => (
          <Toggle
            key={name}
            on={cues.includes(name)}
            onPress={() => setCues((old) => (old.includes(name) ? old.filter((other) => other !== name) : [...old, name]))}
          >
            {CUES[name]}
          </Toggle>
        ))}
      </div>
      <button type="button" className="press mt-2" disabled={cues.length === 0} onClick={() => void save()}>
        Record what you see
      </button>
      <FormMessage>{message}</FormMessage>
    </section>
  );
}
