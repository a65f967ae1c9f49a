/** Where the pages that open without the server are kept. */
export const KEPT_PAGES = "hearth-pages";

const KEPT = /^\/w\/[0-9a-f-]{36}\/(bench|rack|inspect|burn|sell)(\/[0-9a-f-]{36})?$/;
/** Returns the pages that are worked at with gloves on: bench, rack, inspect and burn, with each batch or trial on them; and orders and market days, which are far from the server. */
export const isKeptPath = (path: string): boolean => KEPT.test(path);

/** Returns the same without its workshop, as an earlier version had it. */
export const isOlderPath = (path: string): boolean => KEPT.test(`/w/00000000-0000-0000-0000-000000000000${path}`);

/** A message from a page to the service worker: keep these pages, or forget all. */
export type Told = { is: "keep"; paths: string[] } | { is: "forget" };
