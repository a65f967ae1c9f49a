import { entries } from "./entries";
import { hostile } from "./hostile";
import { load } from "./load";
import { many } from "./many";
import { restore } from "./restore";
import { signIn } from "./sign-in";
import { tenants } from "./tenants";
import { two } from "./two";

const STRESS_TESTS: Record<string, () => Promise<number>> = { entries, hostile, load, many, restore, "sign-in": signIn, tenants, two };

/** Runs stress tests by name, one after another. Each is bounded in time and stays on this machine. Returns the worst exit code; 2 for an unknown name. */
export async function runStressTest(names: string[]): Promise<number> {
  const unknown = names.find((name) => !STRESS_TESTS[name]);
  if (unknown !== undefined || names.length === 0) {
    console.log(
      `${unknown === undefined ? "Name a stress test" : `There is no stress test “${unknown}”`}: books, devices, ${Object.keys(STRESS_TESTS).join(", ")}.`,
    );
    return 2;
  }
  let worst = 0;
  for (const name of names) {
    console.log(`\nStress test: ${name}`);
    const code = await (STRESS_TESTS[name] as () => Promise<number>)();
    console.log(code === 0 ? `passed  ${name}` : `FAILED  ${name}`);
    worst = Math.max(worst, code);
  }
  return worst;
}
