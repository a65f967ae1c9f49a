import { z } from "zod";
import { SECONDS } from "../quantity/duration";
import { HOTTEST } from "../quantity/temperature";
import { gate } from "./gate";
import table from "./profiles.json" with { type: "json" };

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

export interface ReadyProfile extends Profile {
  id: string;
  /** The wax families it is meant for. */
  families: string[];
}

/**
 * Ready-made profiles to start from, each editable on the formula. Gates and times: common practice, no source; the
 * supplier's sheet comes first. Where practice names one temperature, the gate is that temperature ± 2 °C (our choice).
 */
export const READY_PROFILES: readonly ReadyProfile[] = table;
