import type { Station } from "@/ui/station";

export const station: Station = { path: "/plan", name: "plan", key: "p" };
