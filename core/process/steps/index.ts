import type { StepType } from "../step-type";
import { add } from "./add";
import { cool } from "./cool";
import { cure } from "./cure";
import { embed } from "./embed";
import { finish } from "./finish";
import { heat } from "./heat";
import { insertWick } from "./insert-wick";
import { pierce } from "./pierce";
import { pour } from "./pour";
import { pourAgain } from "./pour-again";
import { prepareMold } from "./prepare-mold";
import { refrigerate } from "./refrigerate";
import { rest } from "./rest";
import { set } from "./set";
import { split } from "./split";
import { stir } from "./stir";
import { temper } from "./temper";
import { tilt } from "./tilt";
import { unmold } from "./unmold";
import { wait } from "./wait";
import { weigh } from "./weigh";
import { wickHole } from "./wick-hole";

/** Every type of step. A new one is its file, this line, and its view at the bench, which is found by its name. */
export const STEP_TYPES = [
  weigh,
  heat,
  add,
  stir,
  rest,
  cool,
  temper,
  split,
  prepareMold,
  pour,
  wait,
  pierce,
  wickHole,
  pourAgain,
  tilt,
  embed,
  refrigerate,
  unmold,
  insertWick,
  finish,
  set,
  cure,
] as const;

export type StepName = (typeof STEP_TYPES)[number]["kind"];
export const stepTypeOf = (kind: string): StepType => {
  const found = STEP_TYPES.find((stepType) => stepType.kind === kind);
  if (!found) throw new Error(`No step is called “${kind}”.`);
  return found as unknown as StepType;
};
