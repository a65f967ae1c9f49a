import { describe, expect, it } from "vitest";
import { CLP, HAZARD_CLASSES } from "../hazard/rules";
import { LANGUAGES, precautionsFor, sentenceOf } from "../hazard/sentences";
import { SAFETY_PATHS, SIGN_PATHS, type SignCode } from "./signs";
import { ALWAYS } from "./words";

describe("what the rules put on a label", () => {
  it("is there: each sentence in each language, each sign drawn, each class with what it puts on the label", () => {
    const codes = new Set<string>(["Warning", "Danger", "EUH208", "contains", "draft", "rests", "none", ...CLP.always]);
    for (const rule of Object.values(CLP.classes)) {
      codes.add(rule.h);
      if (rule.pictogram) expect(SIGN_PATHS[rule.pictogram as SignCode], rule.pictogram).toBeDefined();
    }
    for (const list of Object.values(CLP.precautions)) for (const code of list) codes.add(code);
    for (const code of codes)
      for (const language of LANGUAGES) {
        const text = sentenceOf(code, language, ["fern"]);
        expect(text, `${code} in ${language}`).not.toBe(code === "Warning" || code === "Danger" ? "" : code);
        expect(text, `${code} in ${language}`).not.toMatch(/[{}]/);
      }
  });

  it("has a precaution for every sentence, never more than the rules want, and always those for the public", () => {
    const every = Object.values(CLP.classes).map((classRule) => classRule.h);
    for (const h of new Set(every)) {
      const chosen = precautionsFor([h]);
      expect(chosen.length, h).toBeGreaterThan(CLP.always.length);
      expect(chosen).toEqual(expect.arrayContaining([...CLP.always]));
    }
    expect(precautionsFor(every)).toHaveLength(CLP.mostPrecautions);
  });

  it("says where it is from, as of which day, and for where", () => {
    expect(CLP.source).toMatch(/1272\/2008/);
    expect(Date.parse(CLP.asOf)).not.toBeNaN();
    expect(CLP.where).not.toBe("");
    // A class that only the sheet tells apart, and those of liquids, put nothing on the label by themselves.
    expect(HAZARD_CLASSES.filter((hazardClass) => !CLP.classes[hazardClass])).toEqual([
      "Skin Sens. 1A",
      "Skin Sens. 1B",
      "Resp. Sens. 1A",
      "Resp. Sens. 1B",
      "Asp. Tox. 1",
      "Flam. Liq. 3",
    ]);
  });
});

describe("signs", () => {
  it("lie within their square, so that nothing of them is cut off by a frame", () => {
    for (const [name, sign] of [...Object.entries(SIGN_PATHS), ...Object.entries(SAFETY_PATHS)]) {
      expect(sign.paths.length, name).toBeGreaterThan(0);
      for (const { d } of sign.paths) {
        // Absolute moves and lines; what is relative goes on from them.
        for (const [, x, y] of d.matchAll(/[ML](\d+(?:\.\d+)?) (\d+(?:\.\d+)?)/g)) {
          for (const at of [Number(x), Number(y)]) {
            expect(at, `${name}: ${d}`).toBeGreaterThanOrEqual(18);
            expect(at, `${name}: ${d}`).toBeLessThanOrEqual(82);
          }
        }
      }
    }
    expect(Object.keys(SAFETY_PATHS)).toEqual([...ALWAYS]);
  });
});
