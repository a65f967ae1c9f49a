"use client";

import { parseDuration, writeDuration } from "@hearth/core";
import type { ActProps, ActView } from "../parts/act";
import { EntryForm } from "../parts/entry-form";
import { StirClock } from "../stir-clock";

const parse = (text: string) => parseDuration(text, "min", 3_600);

function Stir({ step, batch }: ActProps) {
  const seconds = step.seconds ?? 120;
  return (
    <EntryForm
      batch={batch}
      label="Stirred for"
      unit="min"
      initial={writeDuration(seconds)}
      parse={parse}
      echo={writeDuration}
      button="Record the stirring"
      entry={(time) => ({ kind: "stirred", payload: { act: step.act, seconds: time } })}
    >
      {({ fill }) => <StirClock seconds={seconds} onStop={(stirred) => fill(`${stirred} s`)} />}
    </EntryForm>
  );
}

export const view: ActView = { title: () => "Stir by the clock", View: Stir };
