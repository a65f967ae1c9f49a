import { expect, it } from "vitest";
import { BATCH } from "../batch/batch";
import { CHECKED_BATCH } from "../batch/checked";
import { CHECKED_TRIAL } from "../burn/checked";
import { TRIAL } from "../burn/trial";
import { CHECKED_ORDER } from "../sales/checked";
import { ORDER } from "../sales/order";
import { UNREADABLE, unreadableOf } from "./events/unreadable";

it("an event under the name that earlier versions stored is known by its current name, whether it was sent, stored or is asked about", () => {
  let renamed = 0;
  for (const [aggregate, checked] of [
    [BATCH, CHECKED_BATCH],
    [TRIAL, CHECKED_TRIAL],
    [ORDER, CHECKED_ORDER],
  ] as const) {
    for (const { kind, formerName } of aggregate.eventTypes.values()) {
      if (!formerName) continue;
      renamed += 1;
      expect(aggregate.eventTypes.has(formerName), formerName).toBe(false);
      expect(aggregate.currentName(formerName)).toBe(kind);
      expect(aggregate.versionOf(formerName)).toBe(aggregate.versionOf(kind));
      expect(aggregate.correctableField(formerName)).toEqual(aggregate.correctableField(kind));
      expect(aggregate.upcastSent({ kind: formerName, v: aggregate.versionOf(kind), payload: {} })).toMatchObject({ kind });
      const head = { id: "", happenedAt: "", arrivedAt: "", personId: null, instrumentId: null, corrects: null };
      const read = checked.read({ ...head, kind: formerName, v: aggregate.versionOf(kind), payload: {} } as never) as { kind: string; payload: unknown };
      // An empty payload fits few types; what it may never be is a type that nobody knows.
      if (read.kind === UNREADABLE) expect(unreadableOf(read)?.why, formerName).not.toMatch(/newer version/);
      else expect(read.kind).toBe(kind);
    }
  }
  expect(renamed).toBe(13);
});
