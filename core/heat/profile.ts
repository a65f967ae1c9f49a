import { z } from "zod";
import { SECONDS } from "../quantity/duration";
import { HOTTEST } from "../quantity/temperature";
import { type Gate, gate } from "./gate";

const seconds = z
  .number()
  .int()
  .min(0)
  .max(400 * SECONDS.d);

/** How one wax is worked: its three gates and its times. All temperatures are wax temperatures. */
export const profile = z
  .object({
    name: z.string().trim().min(1, "Give the profile a name.").max(120),
    heat: gate,
    add: gate,
    pour: gate,
    /** Kept above this for long, the wax scorches. */
    ceiling: z.number().int().max(HOTTEST),
    stirSeconds: seconds,
    setSeconds: seconds,
    leastCureSeconds: seconds,
    recommendedCureSeconds: seconds,
    reason: z.string().max(600).default(""),
  })
  .refine((value) => value.leastCureSeconds <= value.recommendedCureSeconds, {
    path: ["recommendedCureSeconds"],
    error: "The recommended cure cannot be shorter than the least cure.",
  });
export type Profile = z.output<typeof profile>;

const span = (low: number, high: number): Gate => ({ low: Math.round(low * 100), high: Math.round(high * 100) });
const around = (at: number): Gate => span(at - 2, at + 2);

export interface ReadyProfile extends Profile {
  id: string;
  /** The wax families it is meant for. */
  families: string[];
}

/**
 * Ready-made profiles to start from, each editable on the formula. Gates and times: common practice, no source; the
 * supplier's sheet comes first. Where practice names one temperature, the gate is that temperature ± 2 °C (our choice).
 */
export const READY_PROFILES: readonly ReadyProfile[] = [
  {
    id: "soy-bind-hot",
    name: "soy, bind hot",
    families: ["soy"],
    heat: around(85),
    add: around(85),
    pour: span(57, 63),
    ceiling: 9_330,
    stirSeconds: 120,
    setSeconds: SECONDS.d,
    leastCureSeconds: 4 * SECONDS.d,
    recommendedCureSeconds: 14 * SECONDS.d,
    reason: "Oil binds in hot wax; the cool pour gives smoother tops.",
  },
  {
    id: "soy-late-cool",
    name: "soy, late and cool",
    families: ["soy"],
    heat: span(70, 78),
    add: span(55, 60),
    pour: span(53, 60),
    ceiling: 9_330,
    stirSeconds: 120,
    setSeconds: SECONDS.d,
    leastCureSeconds: 4 * SECONDS.d,
    recommendedCureSeconds: 14 * SECONDS.d,
    reason: "Added close to pouring, so that less scent is driven off.",
  },
  {
    id: "coconut",
    name: "coconut, as sheets say",
    families: ["coconut"],
    heat: around(70),
    add: around(60),
    pour: span(58, 62),
    ceiling: 9_330,
    stirSeconds: 120,
    setSeconds: SECONDS.d,
    leastCureSeconds: 2 * SECONDS.d,
    recommendedCureSeconds: 14 * SECONDS.d,
    reason: "Soft wax with a low melt: little heat is needed.",
  },
  {
    id: "paraffin-bind-hot",
    name: "paraffin jar, bind hot",
    families: ["paraffin", "paraffin–soy"],
    heat: around(85),
    add: around(85),
    pour: span(71, 77),
    ceiling: 9_330,
    stirSeconds: 60,
    setSeconds: SECONDS.d,
    leastCureSeconds: SECONDS.d,
    recommendedCureSeconds: 2 * SECONDS.d,
    reason: "Takes oil readily; poured hot so that it clings to the glass.",
  },
  {
    id: "soy-beeswax",
    name: "soy with beeswax, pour at once",
    families: ["soy", "beeswax"],
    heat: around(71),
    add: around(71),
    pour: span(66, 72),
    ceiling: 9_330,
    stirSeconds: 120,
    setSeconds: SECONDS.d,
    leastCureSeconds: 4 * SECONDS.d,
    recommendedCureSeconds: 14 * SECONDS.d,
    reason: "The beeswax sets early, so it is poured as soon as it is stirred.",
  },
];
