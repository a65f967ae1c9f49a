import type { Section } from "@/ui/section";

export const section: Section = { path: "/", name: "today", key: "t" };
