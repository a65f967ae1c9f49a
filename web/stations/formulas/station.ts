import type { Station } from "@/ui/station";

export const station: Station = { path: "/formulas", name: "formulas", key: "f" };
