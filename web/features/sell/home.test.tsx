import type { Sellable } from "@hearth/core";
import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it, vi } from "vitest";
import type { FinishedGoodsRow } from "@/server/sales/finished-goods";
import type { OrderListed } from "@/server/sales/orders";
import { Ground } from "@/ui/units";
import { SellHome } from "./home";

vi.mock("next/navigation", () => ({
  usePathname: () => "/sell",
  useRouter: () => ({ replace: () => undefined }),
  useSearchParams: () => new URLSearchParams(),
}));

const TODAY = "2026-03-14";
const sellable = (id: string, name: string): Sellable => ({
  id,
  name,
  kind: "product",
  contents: [{ productId: id, name, count: 1 }],
  packaging: { boxId: null, parts: [] },
  price: 1_650,
});
const finishedGoods = (id: string, over: Partial<FinishedGoodsRow> = {}): FinishedGoodsRow => ({
  sellable: sellable(id, `Thing ${id}`),
  packed: 0,
  loose: 0,
  pieces: 0,
  shortage: 0,
  planned: 0,
  lots: [],
  untested: [],
  test: "tested",
  ...over,
});
const order = (n: number, over: Partial<OrderListed> = {}, shortage = 0): OrderListed => ({
  id: `o${n}`,
  number: n,
  what: "order",
  name: `Order of ${n}`,
  whom: "",
  wantedOn: TODAY,
  closed: false,
  lines: [{ sellable: "a", name: "Thing a", price: 1_650, asked: 5, out: 0, sold: 0, given: 0, second: 0, back: 0, money: 0, there: 0, shortage }],
  ...over,
});
/** The page as text, tags taken out. */
const shown = (open: OrderListed[], rows: FinishedGoodsRow[], closed: OrderListed[] = []) => {
  const markup = renderToStaticMarkup(
    <Ground units={{ mass: "g", temperature: "C", zone: "UTC", currency: "EUR" }} now={`${TODAY}T10:00:00.000Z`} frozen>
      <SellHome
        open={open}
        closed={closed}
        older={null}
        newer={null}
        finishedGoods={rows}
        narrowed={false}
        filters={{ when: { asked: null, firstYear: null, around: null }, more: [] }}
      />
    </Ground>,
  );
  return {
    markup,
    text: markup
      .replace(/<[^>]+>/g, " ")
      .replace(/&#x27;|’/g, "'")
      .replace(/\s+/g, " "),
  };
};

describe("selling, at a glance", () => {
  it("says of each order when it is wanted, whether it is late, and what it lacks of what is there, packed or loose", () => {
    const { text } = shown(
      [order(1, { wantedOn: "2026-03-12" }, 5), order(2, {}, 2), order(3, { wantedOn: "2026-03-23" }, 0), order(4, { wantedOn: null }, 0)],
      [finishedGoods("a", { packed: 1, loose: 2, shortage: 7 })],
    );
    expect(text).toMatch(/2 d late .*Order of 1.*short 2 × Thing a/);
    expect(text).toMatch(/today .*Order of 2/);
    // Two are wanted and three are there.
    expect(/Order of 2(.*?)Order of 3/.exec(text)?.[1]).toContain("all in stock");
    expect(text).toMatch(/9 d .*Order of 3/);
    expect(text).toMatch(/– no day .*Order of 4/);
  });

  it("shows what was sold of what is closed, and how many are still out of what is not", () => {
    const line = { ...(order(1).lines[0] as OrderListed["lines"][number]), out: 5, sold: 4, there: 1, money: 6_600 };
    const { text } = shown([order(1, { lines: [line] })], [], [order(2, { closed: true, lines: [{ ...line, there: 0, back: 1 }] })]);
    expect(text).toContain("1 packs are out");
    expect(text).toMatch(/Order of 2.*4 × Thing a.*4 sold, €66\.00/);
  });

  it("puts first what lacks, leaves out what is neither there nor ordered, and says what must not be sold", () => {
    const { text, markup } = shown(
      [],
      [
        finishedGoods("full", { packed: 9 }),
        finishedGoods("none"),
        finishedGoods("short", { loose: 1, shortage: 3, test: "failed" }),
        finishedGoods("due", { loose: 4, test: "test due" }),
      ],
    );
    const order_ = ["Thing short", "Thing full", "Thing due"].map((name) => text.indexOf(name));
    expect(order_).toEqual([...order_].sort((a, b) => a - b));
    expect(text).not.toContain("Thing none");
    expect(text).toMatch(/Thing short.*▲ 3 short.*⚠ burn test failed/);
    expect(text).toContain("burn test due");
    // Only what stands loose can be packed, only what is packed has labels.
    expect(markup.match(/aria-label="pack Thing \w+"/g)).toEqual(['aria-label="pack Thing short"', 'aria-label="pack Thing due"']);
    expect(markup.match(/aria-label="labels for Thing \w+"/g)).toEqual(['aria-label="labels for Thing full"']);
  });

  it("teaches where there is nothing yet, with the way to begin", () => {
    const { text, markup } = shown([], []);
    expect(text).toContain("No orders yet");
    expect(text).toContain("Release a cured batch on the rack");
    expect(markup).toMatch(/<a [^>]*href="\/sell\/new"[^>]*data-next-step|data-next-step[^>]*href="\/sell\/new"/);
  });
});
