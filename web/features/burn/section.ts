import type { Section } from "@/ui/section";

export const section: Section = { path: "/burn", name: "burn", key: "w" };
