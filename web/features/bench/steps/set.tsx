import { ByTheClock } from "../parts/by-the-clock";
import type { StepView } from "../parts/step";

export const view: StepView = { title: () => "Let it set", View: ByTheClock };
