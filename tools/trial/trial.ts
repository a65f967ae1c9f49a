import { entries } from "./entries";
import { hostile } from "./hostile";
import { load } from "./load";
import { many } from "./many";
import { restore } from "./restore";
import { signIn } from "./sign-in";
import { two } from "./two";
import { walls } from "./walls";

const TRIALS: Record<string, () => Promise<number>> = { entries, hostile, load, many, restore, "sign-in": signIn, two, walls };

/** Runs one trial by its name, or all of them; each is bounded in time, and stays on this machine. */
export async function trial(names: string[]): Promise<number> {
  const unknown = names.find((name) => !TRIALS[name]);
  if (unknown !== undefined || names.length === 0) {
    console.log(`${unknown === undefined ? "Name a trial" : `“${unknown}” is no trial`}: ${Object.keys(TRIALS).join(", ")}.`);
    return 2;
  }
  let worst = 0;
  for (const name of names) {
    console.log(`\nTrial: ${name}`);
    const code = await (TRIALS[name] as () => Promise<number>)();
    console.log(code === 0 ? `passed  ${name}` : `FAILED  ${name}`);
    worst = Math.max(worst, code);
  }
  return worst;
}
