import { describe, expect, it } from "vitest";
import { isKeptPath } from "./pages";

describe("pages that open without the server", () => {
  it("are those that are worked at away from the desk: pots, jars, flames, and what is sold at a stall", () => {
    const id = "0190c0de-0000-7000-8000-000000000001";
    for (const path of ["/bench", "/rack", "/inspect", "/burn", "/sell", `/bench/${id}`, `/rack/${id}`, `/inspect/${id}`, `/burn/${id}`, `/sell/${id}`]) {
      expect(isKeptPath(`/w/${id}${path}`), path).toBe(true);
      // A page that names no workshop is nobody's.
      expect(isKeptPath(path), path).toBe(false);
    }
    // What is reckoned by the server, or shows another's secrets, is not.
    for (const path of [
      "/",
      "/shelf",
      "/sell/labels",
      "/sell/hazard",
      "/sell/sales",
      "/burn/wicks",
      "/burn/new",
      `/sell/sets/${id}`,
      `/products/${id}`,
      "/bench/../workshops",
    ])
      expect(isKeptPath(`/w/${id}${path}`), path).toBe(false);
  });
});
