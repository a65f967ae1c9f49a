import type { Station } from "@/ui/station";

export const station: Station = { path: "/", name: "today", key: "t" };
