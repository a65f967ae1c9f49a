"use client";

import { writeDuration } from "@hearth/core";
import { useMemo, useState } from "react";
import { durationRule } from "@/forms/rules";
import { EntryForm } from "../parts/entry-form";
import type { StepProps, StepView } from "../parts/step";
import { StirClock } from "../stir-clock";

function Stir({ prompt, batch }: StepProps) {
  const seconds = prompt.seconds ?? 120;
  const [how, setHow] = useState("");
  const rule = useMemo(() => durationRule(3_600, writeDuration(seconds)), [seconds]);
  return (
    <EntryForm
      batch={batch}
      label="Stirred for"
      unit="min"
      rule={rule}
      button="Record stirring"
      entry={(time) => ({ kind: "stirred", payload: { step: prompt.step, seconds: time, ...(how === "" ? {} : { hard: how === "hard" }) } })}
    >
      {({ fill }) => (
        <>
          <StirClock seconds={seconds} onTime={(stirred) => fill(`${stirred} s`)} />
          <label className="mt-2 block text-[15px]">
            Stirred{" "}
            <select className="entry !w-auto" value={how} onChange={(event) => setHow(event.target.value)}>
              <option value="">not recorded</option>
              <option value="gently">gently</option>
              <option value="hard">hard, so that air went in</option>
            </select>
          </label>
        </>
      )}
    </EntryForm>
  );
}

export const view: StepView = { title: () => "Stir", View: Stir };
