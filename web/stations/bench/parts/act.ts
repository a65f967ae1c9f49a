import type { Progress } from "@hearth/core";
import type { ComponentType } from "react";
import type { Batch, Instrument } from "@/log/use-batch";

/** What the view of an act is given. */
export interface ActProps {
  step: Progress;
  batch: Batch;
  instruments: Instrument[];
}
/** The view of one kind of act: its heading, and what it shows and asks for. */
export interface ActView {
  title: (step: Progress) => string;
  View: ComponentType<ActProps>;
}

export const HUGE = "figure text-[clamp(60px,8vw,104px)] leading-[0.9]";
