import { DrizzleQueryError } from "drizzle-orm";
import { describe, expect, it } from "vitest";
import { faultOf } from "./logger";

describe("what the server writes down of a fault", () => {
  it("says where and by which code, and nothing that somebody typed", () => {
    const cause = Object.assign(new Error('duplicate key value: Key (name)=(Ansa) "a secret note"'), {
      code: "23505",
      severity: "ERROR",
      constraint: "person_name",
      table: "person",
      detail: "Key (name)=(Ansa)",
    });
    const fault = faultOf(new DrizzleQueryError("insert into person values ($1)", ["Ansa", "a secret note"], cause));
    expect(fault).toMatchObject({ code: "23505", constraint: "person_name", table: "person" });
    expect(fault.at?.length).toBeGreaterThan(0);
    expect(JSON.stringify(fault)).not.toMatch(/Ansa|secret/);
    expect(faultOf(new TypeError("x is not a function"))).toMatchObject({ name: "TypeError", message: "x is not a function" });
    expect(faultOf("Ansa")).toEqual({ name: "string" });
    const away = new DrizzleQueryError("select $1", ["Ansa"], new Error("timeout exceeded when trying to connect"));
    expect(faultOf(away)).toMatchObject({ message: "timeout exceeded when trying to connect" });
    expect(JSON.stringify(faultOf(away))).not.toMatch(/Ansa/);
  });
});
