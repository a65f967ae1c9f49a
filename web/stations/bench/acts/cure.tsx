import type { ActView } from "../parts/act";
import { ByTheClock } from "../parts/by-the-clock";

export const view: ActView = { title: () => "Let it cure", View: ByTheClock };
