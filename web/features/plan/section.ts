import type { Section } from "@/ui/section";

export const section: Section = { path: "/plan", name: "plan", key: "p" };
