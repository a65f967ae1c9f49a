import type { Section } from "@/ui/section";

export const section: Section = { path: "/findings", name: "findings", key: "i" };
