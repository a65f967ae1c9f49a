import { readdirSync } from "node:fs";

const PAGES = new URL("../web/app/w/[workshop]/", import.meta.url).pathname;

/** Every page of a workshop, by its path: "/rack/[id]". */
export const routes = (): string[] =>
  readdirSync(PAGES, { recursive: true, encoding: "utf8" })
    .filter((file) => file.endsWith("page.tsx"))
    .map((file) => `/${file.replace(/\/?page\.tsx$/, "")}`)
    .sort();

/** What each page with a place for an id is opened with: a table of the workshop. */
export const OPENED_WITH: Record<string, string> = {
  "/bench/[id]": "batch",
  "/rack/[id]": "batch",
  "/inspect/[id]": "batch",
  "/records/[id]": "batch",
  "/findings/why/[id]": "batch",
  "/burn/[id]": "trial",
  "/sell/[id]": "sale_order",
  "/sell/sets/[id]": "product_set",
  "/formulas/[id]": "formula",
  "/formulas/[id]/card": "formula",
  "/formulas/processes/[id]": "process",
  "/products/[id]": "product",
  "/products/[id]/throw": "product",
  "/shelf/vessel/[id]/template": "vessel",
  "/shelf/[kind]/[id]": "shelf",
};
