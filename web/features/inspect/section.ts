import type { Section } from "@/ui/section";

export const section: Section = { path: "/inspect", name: "inspect", key: "l" };
