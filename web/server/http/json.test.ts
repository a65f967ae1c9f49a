import { cleanText } from "@hearth/core";
import { describe, expect, it } from "vitest";
import { readJson } from "./json";

describe("JSON that somebody sends", () => {
  it("is read, with brackets inside texts left alone", () => {
    expect(readJson('\ufeff{"a":[1,"[[{{\\"]]"],"b":"line\\nnext"}')).toEqual({ ok: true, value: { a: [1, '[[{{"]]'], b: "line\nnext" } });
  });

  it("is refused before it is parsed where it is nested as nothing sent here is, at once even at eight megabytes", () => {
    expect(readJson("[".repeat(8 * 1_024 * 1_024))).toMatchObject({ ok: false, why: "deep" });
    expect(readJson(`${"[".repeat(48)}${"]".repeat(48)}`)).toMatchObject({ ok: true });
    expect(readJson(`${'{"a":'.repeat(49)}1${"}".repeat(49)}`)).toMatchObject({ ok: false, why: "deep" });
    expect(readJson('["')).toMatchObject({ ok: false, why: "not-json" });
  });

  it("is refused where a text or a name in it cannot be kept by any database, and says where", () => {
    expect(readJson('{"payload":{"text":"a\\u0000b"}}')).toMatchObject({ ok: false, why: "odd-text", message: expect.stringContaining("payload.text") });
    expect(readJson('{"x\\u0000":1}')).toMatchObject({ ok: false, why: "odd-text" });
    expect(readJson('["\\ud800"]')).toMatchObject({ ok: false, why: "odd-text" });
    expect(readJson('["\\ud83d\\udd6f"]')).toMatchObject({ ok: true });
  });
});

describe("text that is typed or pasted", () => {
  it("loses the signs that nobody sees, and keeps all others", () => {
    expect(cleanText("rain\u0000 on\u0007 slate\ud800")).toBe("rain on slate");
    expect(cleanText("first\r\nsecond\rthird\tend")).toBe("first\nsecond\nthird\tend");
    expect(cleanText("Frosts in the cold, −2 °C 🕯 “so”")).toBe("Frosts in the cold, −2 °C 🕯 “so”");
  });
});
