import type { Section } from "@/ui/section";

export const section: Section = { path: "/bench", name: "bench", key: "b" };
