import { expect, it } from "vitest";
import { innerOf } from "../product/section";
import { aBatch, at } from "../testing/batch";
import { batchOf, type EventBody } from "./batch";
import { fillsByPour } from "./fills";
import { moldClock, secondPourShare, withReserve } from "./mold-clock";

/** A pillar batch whose cups are molds. */
function pillars() {
  const batch = aBatch({ process: "pillar-glossy" });
  const [start] = batch.events;
  const { plan } = (start as { payload: { plan: ReturnType<typeof batchOf>["plan"] } }).payload;
  plan.products = plan.products.map((product) => ({ ...product, container: "mold" as const }));
  const add = (minute: number, body: EventBody) => batch.add(body, { happenedAt: at(minute), arrivedAt: at(minute) });
  const clock = (now = 0) => {
    const { plan: made, state } = batchOf(batch.events);
    return moldClock(made, state, at(now)).map(({ name, done, at: when, isNext }) => [name, done, (Date.parse(when) - Date.parse(at(0))) / 60_000, isNext]);
  };
  return { plan, batch, add, clock };
}

it("the clock of a mold runs from its first pour: film, holes, second pour, release, in about five hours", () => {
  const { plan, add, clock, batch } = pillars();
  expect(clock()).toEqual([]);
  const filled = [{ product: plan.products[0]?.key ?? "", count: 10 }];
  const poured = (step: string, weightsMg?: number[]) => ({
    kind: "poured" as const,
    payload: { step, filled: filled.map((item) => ({ ...item, ...(weightsMg ? { weightsMg } : {}) })), leftMg: null, roomCelsius: null, warmed: null },
  });
  add(60, poured("pour"));
  // Common practice, no source: a film at two hours, relief holes, a second pour, two hours more.
  expect(clock()).toEqual([
    ["wait until a firm film has formed", false, 180, true],
    ["pierce relief holes", false, 180, false],
    ["reheat what was kept", false, 180, false],
    ["pour again, 10 %", false, 180, false],
    ["wait until it pulls from the wall", false, 300, false],
    ["unmold", false, 300, false],
    ["finish: trim base and wick", false, 300, false],
  ]);
  // What is overdue moves what follows.
  expect(clock(190).map(([, , minute]) => minute)).toEqual([180, 190, 190, 190, 310, 310, 310]);
  // A wait that was ended late moves what follows.
  add(200, { kind: "stepDone", payload: { step: "wait" } });
  add(205, { kind: "stepDone", payload: { step: "pierce" } });
  expect(clock().map(([, , minute]) => minute)).toEqual([200, 205, 205, 205, 325, 325, 325]);
  add(210, { kind: "read", payload: { step: "pour-again", shown: 7_400, correction: 0 } });
  add(215, poured("pour-again", [1_680, 1_400]));
  expect(clock().at(-1)).toEqual(["finish: trim base and wick", false, 335, false]);
  const { plan: now, state } = batchOf(batch.events);
  // 1.54 g of 14 g on average.
  expect(secondPourShare(now, state, now.products[0]?.containerId ?? "")).toBe(110_000);
});

it("keeps another share back for the second pour where it was learned, and the pours still fill the mold", () => {
  const { plan } = pillars();
  const inner = innerOf(plan.products[0] as (typeof plan.products)[number]);
  const process = withReserve(plan.process, 140_000);
  expect([...fillsByPour(process, inner, 100_000, 0).values()]).toEqual([86_000, 14_000]);
  // A process of one pour has nothing to keep back.
  const one = { ...plan.process, steps: plan.process.steps.filter((step) => step.kind !== "pour-again") };
  expect(withReserve(one, 140_000)).toBe(one);
});
