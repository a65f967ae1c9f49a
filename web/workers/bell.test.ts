import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { Bell } from "./bell";

const rang: string[] = [];
const worker = { onmessage: null as ((event: { data: Bell[] }) => void) | null };
beforeEach(async () => {
  vi.useFakeTimers({ now: 1_000_000 });
  rang.length = 0;
  vi.stubGlobal("self", worker);
  vi.stubGlobal("postMessage", (key: string) => rang.push(key));
  vi.resetModules();
  await import("./bell");
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
const set = (...bells: Bell[]) => worker.onmessage?.({ data: bells });

it("rings each bell once when its time has come, and what is past already at once", () => {
  set({ key: "A1", at: 1_060_000 }, { key: "B1", at: 1_030_000 }, { key: "C1", at: 900_000 });
  vi.advanceTimersByTime(1);
  expect(rang).toEqual(["C1"]);
  vi.advanceTimersByTime(30_000);
  expect(rang).toEqual(["C1", "B1"]);
  vi.advanceTimersByTime(3_600_000);
  expect(rang).toEqual(["C1", "B1", "A1"]);
});

it("forgets what was set before, and waits longer than a timer can", () => {
  set({ key: "A1", at: 1_060_000 });
  // A rest of a month, beyond what one timer takes.
  set({ key: "B1", at: 1_000_000 + 31 * 86_400_000 });
  vi.advanceTimersByTime(30 * 86_400_000);
  expect(rang).toEqual([]);
  vi.advanceTimersByTime(2 * 86_400_000);
  expect(rang).toEqual(["B1"]);
});
