"use client";

import { writeDuration } from "@hearth/core";
import { useMemo } from "react";
import { durationRule } from "@/forms/rules";
import type { ActProps, ActView } from "../parts/act";
import { EntryForm } from "../parts/entry-form";
import { StirClock } from "../stir-clock";

function Stir({ step, batch }: ActProps) {
  const seconds = step.seconds ?? 120;
  const rule = useMemo(() => durationRule(3_600, writeDuration(seconds)), [seconds]);
  return (
    <EntryForm
      batch={batch}
      label="Stirred for"
      unit="min"
      rule={rule}
      button="Record the stirring"
      entry={(time) => ({ kind: "stirred", payload: { act: step.act, seconds: time } })}
    >
      {({ fill }) => <StirClock seconds={seconds} onTime={(stirred) => fill(`${stirred} s`)} />}
    </EntryForm>
  );
}

export const view: ActView = { title: () => "Stir by the clock", View: Stir };
