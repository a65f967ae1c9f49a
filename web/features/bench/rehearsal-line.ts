import { type Message, SimulatedPot, SimulatedProbe } from "@hearth/core";
import type { Line } from "./line-in";

/** So often a second the probe says what it shows. */
const A_SECOND = 4;

/** The simulated pot and probe of a rehearsal, in this page; it goes on as many times as fast as `speed` says. */
export function openRehearsal(pot: { massG: number; celsius: number }, speed: () => number, onMessage: (message: Message) => void): Line {
  const seed = Date.now() % 1_000_000;
  const wax = new SimulatedPot(21, pot.massG, seed, pot.celsius);
  const probe = new SimulatedProbe(wax, seed + 1);
  const timer = setInterval(() => {
    wax.step(speed() / A_SECOND);
    onMessage(probe.read(speed() / A_SECOND));
  }, 1_000 / A_SECOND);
  return {
    tell: async (text) => void wax.told(text),
    stop: () => clearInterval(timer),
  };
}
