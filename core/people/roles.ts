/** What a person may do in a workshop, least rights first. */
export const ROLES = ["viewer", "helper", "editor", "owner"] as const;
export type Role = (typeof ROLES)[number];

/** The parts of the program that rights are given for: its sections, and the people page. */
export const AREAS = ["today", "shelf", "formulas", "products", "plan", "bench", "rack", "inspect", "burn", "sell", "records", "findings", "people"] as const;
export type Area = (typeof AREAS)[number];

/** An action in one part of the program, for which a right is needed. */
export interface Need {
  area: Area;
  action: "see" | "change";
}

/** What is worked at with hands, and shows no price. */
const AT_HAND: readonly Area[] = ["bench", "rack", "inspect", "burn"];

/**
 * Returns whether a role may do something: an owner everything; an editor everything but people and devices; a helper what is done at the
 * bench, the rack, the inspection and the burn; a viewer sees everything but people and devices, and changes nothing. Common practice, no source.
 */
export function may(role: Role, need: Need): boolean {
  if (role === "owner") return true;
  if (need.area === "people") return false;
  if (role === "editor") return true;
  if (role === "viewer") return need.action === "see";
  return AT_HAND.includes(need.area);
}

/** Returns what somebody may do on a device that may itself do no more than `most`: the areas of both. */
export const lesserOf = (a: Role, b: Role): Role => (ROLES.indexOf(a) <= ROLES.indexOf(b) ? a : b);

/** Pages of no section, and whose they are: the words of the trade are for everybody. */
const OTHER_PAGES: Readonly<Record<string, Area>> = { "/": "today", "/words": "bench", "/first": "plan" };

/** Returns the part of the program that a page belongs to, by its path within the workshop; an unknown path belongs to the owner alone. */
export function areaOfPath(path: string): Area {
  const whole = path.split(/[?#]/)[0] || "/";
  return OTHER_PAGES[whole] ?? AREAS.find((area) => whole === `/${area}` || whole.startsWith(`/${area}/`)) ?? "people";
}

/** Returns whether somebody may open a page, by its path within the workshop. */
export const mayOpen = (role: Role, path: string): boolean => may(role, { area: areaOfPath(path), action: "see" });
