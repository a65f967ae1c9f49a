import type { Section } from "@/ui/section";

export const section: Section = { path: "/records", name: "records", key: "c" };
