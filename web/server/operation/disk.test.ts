import { describe, expect, it } from "vitest";
import { isUnavailable } from "@/data/client";
import { unavailableMessage } from "@/server/http/database-unavailable";
import { diskHasRoom } from "./disk";

describe("a disk that fills up", () => {
  it("is noticed before nothing can be written, and told for what it is when nothing can", async () => {
    expect(await diskHasRoom("/tmp", 1)).toBe(true);
    expect(await diskHasRoom("/tmp", Number.MAX_SAFE_INTEGER)).toBe(false);
    expect(await diskHasRoom("/nowhere/at/all")).toBeNull();
    const full = Object.assign(new Error("could not extend file"), { code: "53100" });
    expect(unavailableMessage(new Error("query", { cause: full }))).toMatch(/disk is full.*free some space/);
    expect(unavailableMessage(new Error("gone"))).toMatch(/database is not available/);
  });
});

describe("a database that is away", () => {
  it.each(["57P01", "53300", "25006", "3D000", "ECONNREFUSED"])("is told from a statement that is wrong by %s", (code) => {
    expect(isUnavailable(new Error("query", { cause: Object.assign(new Error("of the database"), { code }) }))).toBe(true);
  });

  it.each(["23505", "42601", "22P02"])("is not taken for a wrong statement: %s", (code) => {
    expect(isUnavailable(Object.assign(new Error("of the statement"), { code }))).toBe(false);
  });
});
