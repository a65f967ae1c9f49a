import type { Station } from "@/ui/station";

export const station: Station = { path: "/shelf", name: "shelf", key: "s" };
