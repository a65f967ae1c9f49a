import { describe, expect, it } from "vitest";
import { AutoSave, type Written } from "./auto-save";

/** A store that answers when it is told to. */
function store() {
  const asked: { text: string; version: number; answer: (out: Written) => void }[] = [];
  const told: { kept: boolean; message: string }[] = [];
  const keeper = new AutoSave(
    (text, version) =>
      new Promise((answer) => {
        asked.push({ text, version, answer });
      }),
    (state) => told.push(state),
    3,
    "a",
  );
  const settle = async (out: Written) => {
    asked.at(-1)?.answer(out);
    await new Promise((next) => setTimeout(next, 0));
  };
  const took = (version: number) => settle({ ok: true, value: { version } });
  return { keeper, asked, told, took, settle };
}

describe("what changes often", () => {
  it("is written one at a time, on the version that the one before gave; what was overtaken is never written", async () => {
    const { keeper, asked, told, took } = store();
    void keeper.save("b");
    void keeper.save("c");
    void keeper.save("d");
    expect(asked.map((item) => item.text)).toEqual(["b"]);
    await took(4);
    // The first was taken, but it is not what stands there now.
    expect(told).toEqual([{ kept: false, message: "" }]);
    expect(asked.map((item) => [item.text, item.version])).toEqual([
      ["b", 3],
      ["d", 4],
    ]);
    await took(5);
    expect(told.at(-1)).toEqual({ kept: true, message: "" });
    expect(keeper.isSaved("d")).toBe(true);
  });

  it("is not written where it is what stands there already, nor where it came back to that", async () => {
    const { keeper, asked, took } = store();
    await keeper.save("a");
    expect(asked).toEqual([]);
    void keeper.save("b");
    void keeper.save("a");
    await took(4);
    // Back at what was before is another writing: "b" stands there now.
    expect(asked.map((item) => item.text)).toEqual(["b", "a"]);
    await took(5);
    expect(asked).toHaveLength(2);
  });

  it("that is refused says why, and is tried again once it changes", async () => {
    const { keeper, asked, told, took, settle } = store();
    void keeper.save("b");
    await settle({ ok: false, message: "Somebody else changed this day." });
    expect(told).toEqual([{ kept: false, message: "Somebody else changed this day." }]);
    expect(asked).toHaveLength(1);
    void keeper.save("c");
    expect(asked.map((item) => [item.text, item.version])).toEqual([
      ["b", 3],
      ["c", 3],
    ]);
    void keeper.save("d");
    await settle({ ok: false, message: "Away." });
    expect(asked.at(-1)?.text).toBe("d");
    await took(4);
    expect(told.at(-1)).toEqual({ kept: true, message: "" });
  });
});
