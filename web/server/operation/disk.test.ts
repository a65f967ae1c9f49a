import { describe, expect, it } from "vitest";
import { unavailableMessage } from "@/server/http/database-unavailable";
import { diskHasRoom } from "./disk";

describe("a disk that fills up", () => {
  it("is noticed before nothing can be written, and told for what it is when nothing can", async () => {
    expect(await diskHasRoom("/tmp", 1)).toBe(true);
    expect(await diskHasRoom("/tmp", Number.MAX_SAFE_INTEGER)).toBe(false);
    expect(await diskHasRoom("/nowhere/at/all")).toBeNull();
    const full = Object.assign(new Error("could not extend file"), { code: "53100" });
    expect(unavailableMessage(new Error("query", { cause: full }))).toMatch(/disk is full.*free some space/);
    expect(unavailableMessage(new Error("gone"))).toMatch(/database is away/);
  });
});
