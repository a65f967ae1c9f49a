import { describe, expect, it } from "vitest";
import { answerForecast } from "../forecast/forecast";
import { readLine, writeLine } from "./line";
import { SimulatedPot, SimulatedProbe, SimulatedScale } from "./simulated";

describe("the simulated pot", () => {
  it("melts in a time that makers know, is hottest at the rim until it is stirred, and drops when oil goes in", () => {
    const pot = new SimulatedPot(21, 1_200);
    pot.heat(true);
    let minutes = 0;
    while (pot.mean < 85 && minutes < 120) {
      pot.step(60);
      minutes++;
    }
    // A pound takes 15 to 20 minutes, and 5 more for each further one: common practice, no source.
    expect(minutes).toBeGreaterThan(15);
    expect(minutes).toBeLessThan(45);
    expect(pot.atProbe).toBeGreaterThan(pot.mean + 0.5);
    pot.heat(false);
    const uneven = pot.atProbe - pot.mean;
    pot.stir();
    pot.step(20);
    expect(Math.abs(pot.atProbe - pot.mean)).toBeLessThan(uneven / 2);
    const before = pot.mean;
    pot.add(120);
    expect(before - pot.mean).toBeGreaterThan(2);
    expect(pot.massG).toBe(1_320);
  });

  it("comes to the room in the end and gives nothing back to it", () => {
    const pot = new SimulatedPot(19, 400);
    pot.heat(true);
    pot.step(1_800);
    pot.heat(false);
    let last = pot.mean;
    for (let hour = 0; hour < 14; hour++) {
      pot.step(3_600);
      expect(pot.mean).toBeLessThanOrEqual(last + 1e-9);
      last = pot.mean;
    }
    expect(last).toBeLessThan(20);
  });

  it("cools so that its readings can be foreseen: two pots out of three in their interval, though it is another model", () => {
    let inside = 0;
    const seeds = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12];
    for (const seed of seeds) {
      const pot = new SimulatedPot(21, 700 + seed * 140, seed);
      const probe = new SimulatedProbe(pot, seed * 31);
      pot.heat(true);
      while (pot.mean < 86) pot.step(20);
      pot.heat(false);
      const readings: { minute: number; celsius: number }[] = [];
      let minute = 0;
      let at60 = 0;
      while (pot.mean > 60) {
        pot.stir();
        pot.step(30);
        const said = probe.read(30);
        minute += 0.5;
        if (said.is === "temperature" && minute > 4 && minute <= 24 && minute % 2 === 0) readings.push({ minute, celsius: said.celsius / 100 });
        at60 = minute;
      }
      const { targets } = answerForecast({ ambient_c: 21, mass_g: pot.massG, readings, targets_c: [60] });
      if ((targets[0]?.low ?? 0) <= at60 && at60 <= (targets[0]?.high ?? 0)) inside++;
    }
    expect(inside).toBeGreaterThanOrEqual(8);
  });
});

describe("the simulated instruments", () => {
  it("a probe lags, comes to the pot, and says that sensor disconnected rather than a temperature", () => {
    const pot = new SimulatedPot(21, 900);
    const probe = new SimulatedProbe(pot, 3, 1 / 50);
    pot.heat(true);
    pot.step(900);
    const said = Array.from({ length: 600 }, () => probe.read(1));
    const first = said.find((message) => message.is === "temperature");
    expect(first?.is === "temperature" && first.settled).toBe(false);
    expect(said.filter((message) => message.is === "fault").length).toBeGreaterThan(5);
    const shown = said.slice(20).flatMap((message) => (message.is === "temperature" ? [message.celsius / 100] : []));
    for (const value of shown) expect(Math.abs(value - pot.atProbe)).toBeLessThan(1.5);
    expect(new Set(shown).size).toBeGreaterThan(10);
    for (const message of said) expect(readLine(writeLine(message))).toEqual(message);
  });

  it("a scale settles to what lies on it less its tare, on its marks, and weighs no more than it can", () => {
    const scale = new SimulatedScale(2_000, 1);
    scale.put(350);
    expect(scale.read(0.5)).toMatchObject({ is: "weight", settled: false });
    for (let n = 0; n < 20; n++) scale.read(0.5);
    scale.tare();
    scale.put(127);
    for (let n = 0; n < 20; n++) scale.read(0.5);
    const there = scale.read(0.5);
    expect(there).toMatchObject({ is: "weight", mg: 127_000, settled: true });
    scale.put(1_900);
    expect(scale.read(0.5)).toEqual({ is: "fault", of: "scale" });
  });
});
