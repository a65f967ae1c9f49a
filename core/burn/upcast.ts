import { upcastContainer } from "../batch/upcast";
import { renameKeys, type Stored, upcastList } from "../log/stored";

const upcastSession = renameKeys({ looks: "checks" });
const upcastVariant = renameKeys({ option: "variant" });
const upcastTestCandles = renameKeys({ testers: "testCandles" });

/**
 * Returns the frozen plan of a trial in this format; anything else as it is. In format 1 test candles were called testers, each of an option, and the checks
 * of a session its looks.
 */
export function upcastTrialPlan(raw: unknown): unknown {
  const old = raw as (Stored & { protocol?: { sessions?: unknown } | null }) | null;
  if (!old || typeof old !== "object" || old.format !== 1) return raw;
  const plan = upcastTestCandles(old);
  return {
    ...plan,
    format: 2,
    protocol: old.protocol && { ...old.protocol, sessions: upcastList(old.protocol.sessions, upcastSession) },
    testCandles: upcastList(plan.testCandles, (testCandle) => upcastVariant(upcastContainer(testCandle))),
  };
}
