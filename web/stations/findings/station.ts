import type { Station } from "@/ui/station";

export const station: Station = { path: "/findings", name: "findings", key: "i" };
