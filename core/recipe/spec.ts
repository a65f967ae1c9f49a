import { type Profile, processOfProfile, upcastProcess } from "../process/upcast";

/** How a dye is dosed: drops or pieces to a pound of wax, or percent of the wax. */
export const DYE_DOSES = ["drops", "pieces", "percent"] as const;
export type DyeDose = (typeof DYE_DOSES)[number];

type Named = readonly { id: string }[];
/** Returns everything of the shelf that a recipe names, by its id: waxes, fragrances, additives, dyes, in this order. */
export const namedIn = (item: { waxes: Named; fragrances: Named; additives?: Named | undefined; dyes?: Named | undefined }): string[] =>
  [...item.waxes, ...item.fragrances, ...(item.additives ?? []), ...(item.dyes ?? [])].map((part) => part.id);

/** Brings a stored formula up to this format: one with a profile of three ranges gets a process, and acts are steps. */
export function upcastFormula(raw: unknown): unknown {
  if (!raw || typeof raw !== "object") return raw;
  if (!("profile" in raw)) return "process" in raw ? { ...raw, process: upcastProcess(raw.process) } : raw;
  const { profile, ...rest } = raw as { profile: Profile } & Record<string, unknown>;
  return { ...rest, process: processOfProfile(profile) };
}
