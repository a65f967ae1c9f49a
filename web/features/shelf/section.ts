import type { Section } from "@/ui/section";

export const section: Section = { path: "/shelf", name: "shelf", key: "s" };
