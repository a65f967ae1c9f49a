import type { Station } from "@/ui/station";

export const station: Station = { path: "/sell", name: "sell", key: "e" };
