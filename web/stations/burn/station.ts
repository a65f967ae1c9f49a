import type { Station } from "@/ui/station";

export const station: Station = { path: "/burn", name: "burn", key: "w" };
