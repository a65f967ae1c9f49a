import type { Section } from "@/ui/section";

export const section: Section = { path: "/sell", name: "sell", key: "e" };
