import { upcastContainer } from "../batch/upcast";

/** Returns a session of a protocol in this format: its checks were called looks. */
function upcastSession(raw: unknown): unknown {
  if (!raw || typeof raw !== "object" || !("looks" in raw)) return raw;
  const { looks, ...rest } = raw as { looks: unknown };
  return { checks: looks, ...rest };
}

/** Returns a protocol in this format. */
export function upcastProtocol(raw: unknown): unknown {
  const sessions = (raw as { sessions?: unknown } | null)?.sessions;
  return Array.isArray(sessions) ? { ...(raw as object), sessions: sessions.map(upcastSession) } : raw;
}

/** Returns a test candle in this format: the variant that it is of was called an option. */
function upcastTestCandle(raw: unknown): unknown {
  const upcast = upcastContainer(raw);
  if (!upcast || typeof upcast !== "object" || !("option" in upcast)) return upcast;
  const { option, ...rest } = upcast as { option: unknown };
  return { variant: option, ...rest };
}

/** Returns the frozen plan of a trial in this format; anything else as it is. In format 1, test candles were called testers. */
export function upcastTrialPlan(raw: unknown): unknown {
  const old = raw as { format?: unknown; testers?: unknown; protocol?: unknown } | null;
  if (!old || typeof old !== "object" || old.format !== 1) return raw;
  const { testers, protocol, ...rest } = old;
  return { ...rest, format: 2, protocol: upcastProtocol(protocol), testCandles: Array.isArray(testers) ? testers.map(upcastTestCandle) : testers };
}
