import type { Section } from "@/ui/section";

export const section: Section = { path: "/rack", name: "rack", key: "r" };
