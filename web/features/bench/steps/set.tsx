import { ByTheClock } from "../parts/by-the-clock";
import type { StepView } from "../parts/step";

export const view: StepView = { title: () => "Leave it to set", View: ByTheClock };
