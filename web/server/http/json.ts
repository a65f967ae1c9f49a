import { oddTextIn } from "@hearth/core";

/** The deepest nesting that anything sent here has, with room to spare. */
const DEEPEST = 48;

export type Json = { ok: true; value: unknown } | { ok: false; why: "not-json" | "deep" | "odd-text"; message: string; value?: unknown };

/** Returns whether JSON text is nested deeper than it may be, without parsing it: brackets within texts do not count. */
function isDeep(text: string): boolean {
  let depth = 0;
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code === 34) {
      // To the end of this text, past what is escaped.
      for (at++; at < text.length && text.charCodeAt(at) !== 34; at++) if (text.charCodeAt(at) === 92) at++;
    } else if (code === 91 || code === 123) {
      if (++depth > DEEPEST) return true;
    } else if (code === 93 || code === 125) depth--;
  }
  return false;
}

/** Reads JSON that somebody sent: what is nested too deep is refused before it is parsed, and text that cannot be kept after. */
export function readJson(text: string): Json {
  if (isDeep(text)) return { ok: false, why: "deep", message: `This is nested deeper than ${DEEPEST} levels, and nothing sent here is.` };
  let value: unknown;
  try {
    value = JSON.parse(text.charCodeAt(0) === 0xfeff ? text.slice(1) : text);
  } catch {
    return { ok: false, why: "not-json", message: "This is not JSON." };
  }
  const odd = oddTextIn(value);
  return odd === null
    ? { ok: true, value }
    : { ok: false, why: "odd-text", value, message: `The text at “${odd}” holds a sign that cannot be kept. Type it anew.` };
}
