import { AREAS, type Area, areaOfPath } from "./roles";

/** What a change can be about: a part of the program, what is in stock, or how much waits in each part, which stands on every page. */
export type Topic = Area | "stock" | "waiting";

/** What a command of a part changes beside that part itself; null if it can be anything, since names and units stand everywhere. */
const ALSO_CHANGES: Record<Area, readonly Topic[] | null> = {
  today: null,
  shelf: ["stock"],
  formulas: [],
  products: [],
  plan: ["waiting"],
  bench: ["rack", "inspect", "records", "stock", "waiting"],
  rack: ["inspect", "sell", "records", "waiting"],
  inspect: ["rack", "records", "findings", "waiting"],
  burn: ["products", "waiting"],
  sell: ["rack", "records", "stock", "waiting"],
  records: null,
  findings: [],
  people: null,
};

/** The topics of what a command of a part changed; undefined if it can be anything. */
export const topicsOfCommand = (area: Area): readonly Topic[] | undefined => {
  const also = ALSO_CHANGES[area];
  return also === null ? undefined : [area, ...also];
};

/** The topics of an entry: by what it is of, whether that went from one part to another, and whether stock was drawn. */
export function topicsOfEntry(what: "batch" | "trial" | "order", isOnBench: boolean, moved: boolean, drew: boolean): readonly Topic[] {
  const own: readonly Topic[] = what === "trial" ? ["burn"] : what === "order" ? ["sell"] : isOnBench ? ["bench"] : ["rack", "inspect", "records", "sell"];
  const after: readonly Topic[] = moved ? ["waiting", ...(what === "batch" ? (["bench", "rack", "inspect", "records"] as const) : [])] : [];
  return [...new Set<Topic>([...own, ...after, ...(drew ? (["stock"] as const) : [])])];
}

/** What a page shows beside what waits; of today's page, everything that is worked at. */
const SHOWN: Record<Area, readonly Topic[]> = {
  today: AREAS,
  shelf: ["shelf", "stock"],
  formulas: ["formulas", "shelf"],
  products: ["products", "formulas", "shelf", "stock", "burn"],
  plan: ["plan", "formulas", "products", "shelf", "stock", "sell"],
  bench: ["bench", "plan"],
  rack: ["rack", "inspect"],
  inspect: ["inspect", "rack"],
  burn: ["burn", "products"],
  sell: ["sell", "products", "stock"],
  records: ["records"],
  findings: ["findings", "inspect", "rack"],
  people: ["people"],
};
/** Pages of which nothing changes by what is entered. */
const STILL = ["/words"];

/** Returns the topics that a page shows, by its path within the workshop. */
export const topicsOfPage = (path: string): readonly Topic[] => (STILL.includes(path) ? ["waiting"] : [...SHOWN[areaOfPath(path)], "waiting"]);

/** Returns whether a change concerns a page; one that does not say what it is about concerns all. */
export const concerns = (change: { topics?: readonly Topic[] }, shown: readonly Topic[]): boolean =>
  !change.topics || change.topics.some((topic) => shown.includes(topic));
