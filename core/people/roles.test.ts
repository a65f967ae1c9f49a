import { describe, expect, it } from "vitest";
import { AREAS, areaOfPath, lesserOf, may, mayOpen, type ROLES } from "../index";

describe("what a role may do", () => {
  const seen = (role: (typeof ROLES)[number]) => AREAS.filter((area) => may(role, { area, action: "see" }));
  const changed = (role: (typeof ROLES)[number]) => AREAS.filter((area) => may(role, { area, action: "change" }));

  it("is bench, rack, inspect and burn for a helper, and no page with a price", () => {
    expect(seen("helper")).toEqual(["bench", "rack", "inspect", "burn"]);
    expect(changed("helper")).toEqual(["bench", "rack", "inspect", "burn"]);
    for (const path of ["/", "/products/x", "/sell", "/shelf?kind=wax", "/plan", "/records/x", "/findings", "/people", "/formulas", "/first"])
      expect(mayOpen("helper", path), path).toBe(false);
    for (const path of ["/bench", "/bench/x", "/rack", "/inspect/x", "/burn?x", "/words", "/words#cure"]) expect(mayOpen("helper", path), path).toBe(true);
  });

  it("is to see for a viewer, all but who works here for an editor, and that too for an owner", () => {
    expect(changed("viewer")).toEqual([]);
    expect(seen("viewer")).toEqual(AREAS.filter((area) => area !== "people"));
    expect(changed("editor")).toEqual(seen("viewer"));
    expect(changed("owner")).toEqual([...AREAS]);
  });

  it("is on a device the lesser of both", () => {
    expect(lesserOf("owner", "helper")).toBe("helper");
    expect(lesserOf("viewer", "editor")).toBe("viewer");
    // A path that only begins alike is another's.
    expect(areaOfPath("/sellers")).toBe("people");
    expect([areaOfPath("/"), areaOfPath("")]).toEqual(["today", "today"]);
  });

  it("is nothing on a page that nobody gave a right for: only the owner sees it", () => {
    for (const path of ["/samples", "/samples/x", "/sellers", "/undefined"]) {
      for (const role of ["viewer", "helper", "editor"] as const) expect(mayOpen(role, path), `${role} ${path}`).toBe(false);
      expect(mayOpen("owner", path)).toBe(true);
    }
  });
});
