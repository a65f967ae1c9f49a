import { describe, expect, it } from "vitest";
import { changesBetween, isNewer } from "./versions";

const LOG = `# Changes

What a maker notices.

## 0.10.0

- Ten.

## 0.9.1

- Nine and a bit.

## 0.9.0

- Nine.
`;

describe("what changed between two versions", () => {
  it("counts versions as numbers, not as letters", () => {
    expect(isNewer("0.10.0", "0.9.1")).toBe(true);
    expect(isNewer("0.9.1", "0.10.0")).toBe(false);
    expect(isNewer("0.9.0", "0.9.0")).toBe(false);
  });

  it("is what stands after the old one, up to the new one", () => {
    expect(changesBetween(LOG, "0.9.0", "0.10.0")).toBe("## 0.10.0\n\n- Ten.\n\n## 0.9.1\n\n- Nine and a bit.");
    expect(changesBetween(LOG, "0.9.0", "0.9.1")).toContain("Nine and a bit");
    expect(changesBetween(LOG, "0.10.0", "0.10.0")).toBe("");
  });
});
