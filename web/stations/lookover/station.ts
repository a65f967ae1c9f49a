import type { Station } from "@/ui/station";

export const station: Station = { path: "/look-over", name: "look-over", key: "l" };
