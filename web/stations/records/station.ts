import type { Station } from "@/ui/station";

export const station: Station = { path: "/records", name: "records", key: "c" };
