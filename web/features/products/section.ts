import type { Section } from "@/ui/section";

export const section: Section = { path: "/products", name: "products", key: "d" };
