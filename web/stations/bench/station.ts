import type { Station } from "@/ui/station";

export const station: Station = { path: "/bench", name: "bench", key: "b" };
