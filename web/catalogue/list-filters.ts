import type { NarrowingOptions } from "@/server/batches/narrowing";
import type { ListFilters } from "./find-bar";
import type { WhenProps } from "./when-filter";

/** By what a list of batches, trials or orders can be narrowed beside the time: the key in the address, its name, and the options. */
const FILTERS = [
  { key: "flaw", label: "Flaw", of: "flaws" },
  { key: "product", label: "Product", of: "products" },
  { key: "vessel", label: "Vessel", of: "vessels" },
  { key: "wax", label: "Wax", of: "waxes" },
  { key: "by", label: "Poured by", of: "people" },
] as const;
type Key = (typeof FILTERS)[number]["key"];

/** Returns the filters of a list: its days, and those of `keys` for which the workshop has anything to choose. */
export const listFilters = (options: NarrowingOptions, keys: readonly Key[], when: Pick<WhenProps, "asked" | "around">): ListFilters => ({
  when: { ...when, firstYear: options.firstYear },
  more: FILTERS.flatMap(({ key, label, of }) =>
    keys.includes(key) && options[of].length > 0 ? [{ key, label, options: [{ value: "", label: "any" }, ...options[of]] }] : [],
  ),
});
/** All that a list of batches can be narrowed by. */
export const BATCH_FILTERS: readonly Key[] = FILTERS.map(({ key }) => key);
