import type { Station } from "@/ui/station";

export const station: Station = { path: "/products", name: "products", key: "d" };
