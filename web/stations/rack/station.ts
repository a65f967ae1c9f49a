import type { Station } from "@/ui/station";

export const station: Station = { path: "/rack", name: "rack", key: "r" };
