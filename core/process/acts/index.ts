import type { ActKind } from "../kind";
import { add } from "./add";
import { cool } from "./cool";
import { cure } from "./cure";
import { embed } from "./embed";
import { finish } from "./finish";
import { heat } from "./heat";
import { pierce } from "./pierce";
import { pour } from "./pour";
import { pourAgain } from "./pour-again";
import { rest } from "./rest";
import { set } from "./set";
import { stir } from "./stir";
import { tilt } from "./tilt";
import { unmould } from "./unmould";
import { wait } from "./wait";
import { weigh } from "./weigh";

/** Every kind of act. A new one is its file, this line, and its view at the bench, which is found by its name. */
export const ACTS = [weigh, heat, add, stir, rest, cool, pour, wait, pierce, pourAgain, tilt, embed, unmould, finish, set, cure] as const;

export type ActName = (typeof ACTS)[number]["kind"];
export const actKindOf = (kind: string): ActKind => {
  const found = ACTS.find((one) => one.kind === kind);
  if (!found) throw new Error(`No act is called “${kind}”.`);
  return found as unknown as ActKind;
};
