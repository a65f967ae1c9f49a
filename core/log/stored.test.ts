import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { renameKeys, upcastList } from "./stored";

describe("what an earlier version stored", () => {
  it("gets its keys' names of now, keeps all others, and is not changed itself", () => {
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom("act", "option", "kind", "constructor", "toString"), fc.jsonValue()), (stored) => {
        const before = structuredClone(stored);
        const { act, ...rest } = stored;
        expect(renameKeys({ act: "step" })(stored)).toEqual("act" in stored ? { step: act, ...rest } : rest);
        expect(stored).toEqual(before);
      }),
    );
  });

  it("is upcast in a list, item by item, and left as it is where it is no list or no object", () => {
    const upcast = renameKeys({ looks: "checks" });
    expect(upcastList([{ looks: [1] }, null, "x", [2]], upcast)).toEqual([{ checks: [1] }, null, "x", [2]]);
    expect(upcastList("none", upcast)).toBe("none");
    expect(upcastList(undefined, upcast)).toBeUndefined();
  });
});
