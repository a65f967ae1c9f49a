import type { ActView } from "../parts/act";
import { ByTheClock } from "../parts/by-the-clock";

export const view: ActView = { title: () => "Leave it to set", View: ByTheClock };
