import { describe, expect, it } from "vitest";
import { z } from "zod";
import { containing } from "@/server/shared/natural-sort";
import { parseQuery } from "./query";

const asked = (query: Record<string, string | string[] | undefined>) =>
  parseQuery(Promise.resolve(query), { kind: z.enum(["wax", "wick"]), low: z.literal("1") });

describe("what a list's address asks for", () => {
  it("is what can be meant; the rest is as if it were not there", async () => {
    expect(await asked({ q: "hay", kind: "wax", low: "1", page: "3" })).toEqual({ q: "hay", kind: "wax", low: "1", page: 3 });
    expect(await asked({ kind: "crayon", low: "yes", page: "0" })).toEqual({});
    expect(await asked({ page: "1e9" })).toEqual({});
    expect(await asked({ page: "2.5", q: "x".repeat(101) })).toEqual({});
    expect(await asked({ kind: ["wick", "wax"], other: "thing" })).toEqual({ kind: "wick" });
  });
});

describe("letters looked for", () => {
  it("mean just themselves, whatever a pattern would make of them", () => {
    expect(containing(" 100% ")).toBe("%100\\%%");
    expect(containing("a_b\\c")).toBe("%a\\_b\\\\c%");
  });
});
