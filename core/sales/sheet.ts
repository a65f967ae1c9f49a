import type { OrderPlan } from "./plan";

/** The columns of what was sold, as other programs map them: amounts of money as plain decimal numbers. */
export const SALES_COLUMNS = [
  "date",
  "order_number",
  "kind",
  "order_name",
  "item",
  "batches",
  "packs_out",
  "packs_sold",
  "packs_second",
  "packs_given",
  "packs_back",
  "revenue",
  "cost",
  "currency",
] as const;

/** The columns of orders in a file, by the heads that shops write them under. */
const HEADS: Record<"order" | "on" | "item" | "packs" | "whom", RegExp> = {
  order: /^(order|order[ _]?(no|number|name|id)|name|customer)\.?$/i,
  on: /^(date|day|wanted[ _]?(by|on)|due|ship[ _]?by|delivery[ _]?date)$/i,
  item: /^(item|product|article|sku|title|lineitem[ _]?name)$/i,
  packs: /^(packs?|qty|quantity|count|pieces|lineitem[ _]?quantity)$/i,
  whom: /^(e-?mail|contact|address|buyer|remarks?|note)$/i,
};

/** Orders read from the rows of a file; a row that cannot be read has its fault beside it. */
export interface ReadOrders {
  orders: OrderPlan[];
  faults: { row: number; fault: string }[];
}

/**
 * Returns orders out of rows, a line a row: rows of one order and day belong together. `dayOf` reads a day as the workshop writes it; `things` are
 * what is sold, found by name without regard to case.
 */
export function readOrderRows(
  heads: readonly string[],
  rows: readonly (readonly string[])[],
  things: readonly { id: string; name: string; price: number | null }[],
  dayOf: (text: string) => string | null,
): ReadOrders {
  const column = (key: keyof typeof HEADS) => heads.findIndex((head) => HEADS[key].test(head.trim()));
  const at = { order: column("order"), on: column("on"), item: column("item"), packs: column("packs"), whom: column("whom") };
  if (at.order < 0 || at.item < 0 || at.packs < 0)
    return { orders: [], faults: [{ row: 1, fault: "The heads must name the order, the item and the packs, like: order, wanted_by, item, packs." }] };
  const byName = new Map(things.map((item) => [item.name.trim().toLowerCase(), item]));
  const orders = new Map<string, OrderPlan>();
  const faults: ReadOrders["faults"] = [];
  rows.forEach((row, index) => {
    const cell = (key: keyof typeof at) => (at[key] < 0 ? "" : (row[at[key]] ?? "").trim());
    if (row.every((text) => text.trim() === "")) return;
    const no = (fault: string) => faults.push({ row: index + 2, fault });
    const name = cell("order");
    const thing = byName.get(cell("item").toLowerCase());
    const packs = Number(cell("packs"));
    const day = cell("on") === "" ? null : dayOf(cell("on"));
    if (name === "" || name.length > 120) no("Name the order, in at most 120 letters.");
    else if (!thing) no(`“${cell("item")}” is not sold here: no product or set is called so.`);
    else if (!Number.isInteger(packs) || packs < 1 || packs > 100_000) no(`“${cell("packs")}” is no number of packs.`);
    else if (cell("on") !== "" && day === null) no(`“${cell("on")}” is no day.`);
    else {
      const key = `${name.toLowerCase()} ${day ?? ""}`;
      const order = orders.get(key) ?? { format: 1 as const, what: "order" as const, name, whom: cell("whom").slice(0, 200), wantedOn: day, lines: [] };
      const line = order.lines.find((line) => line.sellable === thing.id);
      if (line) line.packs += packs;
      else order.lines.push({ sellable: thing.id, name: thing.name, packs, price: thing.price });
      orders.set(key, order);
    }
  });
  return { orders: [...orders.values()], faults };
}
