import type { ForecastView } from "@hearth/core";
import { describe, expect, it } from "vitest";
import { bySoonest } from "./order";

const at = (minute: number) => new Date(Date.UTC(2026, 2, 14, 9, minute)).toISOString();
const around = (minute: number) => ({ at: at(minute), low: at(minute - 2), high: at(minute + 2) });
const pot = (id: string, from: number) => ({ id, startedAt: at(0), next: { from: at(from) } });
const forecastView = (enters: number | null, leaves: number | null): ForecastView => ({
  name: "pour",
  range: { low: 5_700, high: 6_300 },
  is: "cooling",
  mixed: false,
  drops: null,
  readAt: at(0),
  readings: 3,
  enters: enters === null ? null : around(enters),
  leaves: leaves === null ? null : around(leaves),
  why: null,
  doubts: [],
});

describe("the pots in the order in which they need hands", () => {
  it("puts what is ready before what is on its way, and of what is ready what leaves its range first", () => {
    const pots = [pot("cooling", 5), pot("stays", 5), pot("leaves soon", 5), pot("nearly", 5), { ...pot("done", 5), next: null }];
    const forecastViews = { cooling: forecastView(40, 55), stays: forecastView(null, 50), "leaves soon": forecastView(null, 22), nearly: forecastView(25, 40) };
    const order = (now: number) => bySoonest(pots, forecastViews, at(now)).map((item) => item.id);
    expect(order(20)).toEqual(["leaves soon", "stays", "nearly", "cooling", "done"]);
    // Once it should be in its range it stands among those that need hands now.
    expect(order(30)).toEqual(["leaves soon", "nearly", "stays", "cooling", "done"]);
  });

  it("keeps pots of which nothing is foreseen by when their next step is due", () => {
    const pots = [pot("later", 90), pot("due", 5)];
    expect(bySoonest(pots, {}, at(20)).map((item) => item.id)).toEqual(["due", "later"]);
    expect(bySoonest([pot("due", 5), pot("cooling", 5)], { cooling: forecastView(40, 55) }, at(20)).map((item) => item.id)).toEqual(["due", "cooling"]);
  });
});
