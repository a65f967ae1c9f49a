import type { Section } from "@/ui/section";

export const section: Section = { path: "/formulas", name: "formulas", key: "f" };
