import fc from "fast-check";
import { expect, it } from "vitest";
import { blendVerdict, mixingVerdict, ratioOf } from "./oil-test";

const swab = (ids: string[], verdict: "good" | "bad" | "open") => ({ kind: "swab" as const, verdict, parts: ids.map((id) => ({ id })) });

it("a blend is tested where just its oils were tried together; the newest verdict counts", () => {
  const tests = [swab(["a", "b"], "bad"), swab(["b", "a"], "good"), swab(["a", "b", "c"], "good")];
  expect(blendVerdict(tests, ["b", "a"])).toBe("bad");
  expect(blendVerdict(tests, ["c", "b", "a"])).toBe("good");
  expect(blendVerdict(tests, ["a", "c"])).toBeNull();
  expect(mixingVerdict(tests, "a")).toBeNull();
  expect(mixingVerdict([{ kind: "mixing", verdict: "good", parts: [{ id: "a" }] }], "a")).toBe("good");
});

it("a ratio is in its smallest whole numbers, and says the drops again when it is multiplied", () => {
  expect(ratioOf([6, 4])).toBe("3 : 2");
  expect(ratioOf([12, 10, 22])).toBe("6 : 5 : 11");
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 200 }), { minLength: 1, maxLength: 5 }), (drops) => {
      const parts = ratioOf(drops).split(" : ").map(Number);
      const times = (drops[0] as number) / (parts[0] as number);
      expect(parts.map((part) => part * times)).toEqual(drops);
    }),
  );
});
