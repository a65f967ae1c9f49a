import type { Progress } from "@hearth/core";
import type { ComponentType } from "react";
import type { Batch, Instrument } from "@/log/use-batch";

/** What the view of a step is given. */
export interface StepProps {
  prompt: Progress;
  batch: Batch;
  instruments: Instrument[];
}
/** The view of one type of step: its heading, and what it shows and asks for. */
export interface StepView {
  title: (prompt: Progress) => string;
  View: ComponentType<StepProps>;
}

export const HUGE = "figure text-[clamp(52px,8vw,104px)] leading-[0.9]";
