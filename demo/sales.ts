import { CHECKED_ORDER, type OrderLine, type OrderPlan, type SupplierSheet } from "@hearth/core";
import { eq } from "drizzle-orm";
import { v7 } from "uuid";
import type { Database } from "../web/data/client";
import { labelling, labelSheets, supplierSheets } from "../web/data/tables/label";
import { sets } from "../web/data/tables/sales";
import { workshops } from "../web/data/tables/workshop";
import { LOCAL_OWNER } from "../web/server/auth/session";
import { appendIn, systemEntry } from "../web/server/events/append";
import { orderStore } from "../web/server/events/order-store";
import type { Context } from "../web/server/http/context";
import { beginOrderIn, takeOutIn } from "../web/server/sales/orders";
import { costsNow, packIn } from "../web/server/sales/packing";
import { demoId, PEOPLE, PRODUCTS, packagingOf } from "./workshop";

/** Returns what the demo sold, packed and wrote on labels: logged by the same commands that a maker's presses call, each at its own time. */

const ingredient = (name: string, percent: number, classes: string[], more: Partial<SupplierSheet["ingredients"][number]> = {}) => ({
  name,
  percent,
  classes,
  unread: [],
  limits: [],
  ...more,
});

/** Sheets of suppliers: invented ingredients with invented shares. Mint has none, so that its labels say so. */
const SHEETS: [group: number, n: number, revision: string, daysBefore: number, ingredients: SupplierSheet["ingredients"]][] = [
  [2, 1, "1.2", 300, []],
  [2, 2, "3", 200, []],
  [2, 3, "2.0", 410, []],
  [2, 5, "1", 260, []],
  [
    3,
    1,
    "4.1",
    120,
    [
      ingredient("slate accord", 12, ["Skin Sens. 1B"]),
      ingredient("rainwood musk", 35, ["Aquatic Chronic 2"]),
      ingredient("petrichal", 6, ["Eye Irrit. 2", "Skin Irrit. 2"], { from: 2 }),
    ],
  ],
  [
    3,
    2,
    "2",
    95,
    [
      ingredient("smoked quincene", 9, ["Skin Sens. 1", "Aquatic Chronic 2"]),
      ingredient("vanillal base", 22, ["Eye Irrit. 2"]),
      ingredient("ember tar light", 1.5, ["Acute Tox. 4 oral", "Aquatic Chronic 1"], { ateOral: 1_200, m: 1 }),
    ],
  ],
  [
    3,
    3,
    "1",
    60,
    [
      ingredient("hay coumaral", 8, ["Skin Sens. 1B"], { limits: [{ class: "Skin Sens. 1B", percent: 1 }] }),
      ingredient("sweet clover oil", 4, ["Aquatic Chronic 3"]),
    ],
  ],
];

const SET = demoId(0x2d, 1);
const product = (n: number) => demoId(0x26, n);
const line = (n: number, packs: number): OrderLine => {
  const of = PRODUCTS[n - 1];
  return { sellable: product(n), name: of?.name ?? "", packs, price: of?.price ?? null };
};

interface DemoOrder {
  n: number;
  what: OrderPlan["what"];
  name: string;
  whom: string;
  /** Days from now; those of the past are over and counted. */
  inDays: number;
  lines: [n: number, packs: number, sold: number][];
}
const ORDERS_OF_DEMO: readonly DemoOrder[] = [
  {
    n: 1,
    what: "market",
    name: "Harbour market",
    whom: "stall 14, by the crane",
    inDays: -23,
    lines: [
      [1, 6, 6],
      [2, 6, 4],
      [4, 8, 8],
      [7, 4, 3],
    ],
  },
  {
    n: 2,
    what: "order",
    name: "Ilvermoor guest house",
    whom: "by the gate, ask for the kitchen",
    inDays: -12,
    lines: [
      [4, 4, 4],
      [7, 3, 3],
    ],
  },
  {
    n: 3,
    what: "market",
    name: "Spring market, town hall",
    whom: "inside, two tables",
    inDays: -6,
    lines: [
      [1, 5, 5],
      [2, 6, 3],
      [4, 6, 5],
      [3, 2, 2],
    ],
  },
  { n: 4, what: "order", name: "A wedding table", whom: "collects on the Friday", inDays: 9, lines: [[8, 4, 0]] },
  {
    n: 5,
    what: "order",
    name: "Shop on the quay",
    whom: "deliver before ten",
    inDays: 19,
    lines: [
      [6, 8, 0],
      [7, 6, 0],
    ],
  },
  {
    n: 6,
    what: "market",
    name: "Town market",
    whom: "stall 3",
    inDays: 28,
    lines: [
      [1, 24, 0],
      [4, 18, 0],
      [2, 30, 0],
    ],
  },
];

/** Packs, sells and labels products in the demo's workshop, as of `now`; nothing where the demo has no past. */
export async function putFinishedGoods(db: Database, workshopId: string, now: Date, past: boolean): Promise<void> {
  const [workshop] = await db.select().from(workshops).where(eq(workshops.id, workshopId));
  if (!workshop) return;
  const before = (days: number, hours = 0) => new Date(now.getTime() - days * 86_400_000 + hours * 3_600_000).toISOString();
  const people = PEOPLE.map((item) => ({ ...item, archived: false }));
  const at = (moment: string): Context => ({ db, workshop, people, person: people[0] ?? null, who: LOCAL_OWNER, now: moment });
  await db.insert(supplierSheets).values(
    SHEETS.map(([group, n, revision, days, ingredients], index) => ({
      workshopId,
      id: demoId(0x2e, index + 1),
      materialId: demoId(group, n),
      on: before(days).slice(0, 10),
      sheet: { revision, on: before(days).slice(0, 10), ingredients },
      at: before(30),
      personId: PEOPLE[0]?.id ?? null,
    })),
  );
  await db.insert(labelSheets).values({
    workshopId,
    id: demoId(0x2f, 1),
    name: "Jar fronts, A4",
    sheet: { paper: "a4", round: false, rows: 5, columns: 2, width: 90_000, height: 50_000, left: 10_000, top: 12_000, gapAcross: 10_000, gapDown: 5_000 },
    at: before(30),
  });
  await db.insert(labelling).values({
    workshopId,
    settings: {
      format: 1,
      maker: "Quillfen candle shed",
      address: "Behind the walled garden, Quillfen",
      phone: "000 555 0134",
      own: ["Keep it level: a pool runs to the lower side."],
      base: "",
    },
    version: 1,
  });
  await db.insert(sets).values({
    workshopId,
    id: SET,
    name: "Evening box",
    contents: [
      { productId: product(1), count: 1 },
      { productId: product(2), count: 2 },
    ],
    packaging: packagingOf([
      3,
      [
        [4, 1],
        [6, 1],
      ],
    ]) ?? { boxId: null, parts: [] },
    price: 2_400,
  });
  // Resold as it was bought.
  await db.insert(sets).values({
    workshopId,
    id: demoId(0x2d, 2),
    name: "Wick trimmer",
    contents: [],
    packaging: { boxId: null, parts: [{ id: demoId(0x2c, 11), count: 1 }] },
    price: 900,
  });
  const costs = past ? await costsNow({ db, workshop }, [...PRODUCTS.map((product) => product.id), SET]) : new Map<string, number | null>();
  for (const demo of ORDERS_OF_DEMO) {
    const orderId = demoId(0x30, demo.n);
    const over = demo.inDays < 0;
    if (over && !past) continue;
    const begun = over ? before(-demo.inDays + 9) : before(3, demo.n);
    const plan: OrderPlan = {
      format: 1,
      what: demo.what,
      name: demo.name,
      whom: demo.whom,
      wantedOn: before(-demo.inDays).slice(0, 10),
      lines: demo.lines.map(([n, packs]) => line(n, packs)),
    };
    await db.transaction((tx) => beginOrderIn(tx, at(begun), { orderId, plan }));
    if (!over) continue;
    const morning = before(-demo.inDays, -6);
    // What was not there then stayed at home: the demo does not mind.
    for (const [n, packs] of demo.lines)
      await db.transaction((tx) => takeOutIn(tx, at(morning), { eventId: v7(), orderId, lines: [{ sellableId: product(n), packs }] }, costs));
    await db.transaction(async (tx) => {
      const row = await orderStore.readRow(tx, workshopId, orderId, true);
      if (!row) return;
      const add = async (kind: string, payload: unknown, hours: number) => {
        const moment = before(-demo.inDays, hours);
        const sent = systemEntry({ now: moment, personId: PEOPLE[1]?.id ?? null }, kind, CHECKED_ORDER.body.parse({ kind, payload }).payload);
        await appendIn(orderStore, tx, workshopId, orderId, [{ sent, now: moment }]);
      };
      for (const [n, , sold] of demo.lines) {
        const out = row.state.finishedGoods.filter((stocked) => stocked.sellable === product(n)).reduce((sum, packsOut) => sum + packsOut.out, 0);
        const gone = Math.min(out, sold);
        const of = { sellable: product(n), name: line(n, 0).name };
        if (gone > 0) await add("packsResolved", { ...of, packs: gone, to: "sold" }, -3 + n / 10);
        if (out > gone) await add("packsResolved", { ...of, packs: out - gone, to: "back" }, 0);
      }
      await add("closed", {}, 1);
    });
  }
  if (!past) return;
  for (const [n, packs, weights] of [
    [7, 3, [84_300, 84_620, 83_950]],
    [1, 4, []],
  ] as const)
    await db.transaction((tx) =>
      packIn(
        tx,
        at(before(2, n)),
        { packRunId: demoId(0x31, n), sellableId: product(n), packs, weightsMg: [...weights], statedMg: weights.length > 0 ? 84_000 : null },
        costs,
      ),
    );
  await db.transaction((tx) => packIn(tx, at(before(1)), { packRunId: demoId(0x31, 20), sellableId: SET, packs: 2, weightsMg: [], statedMg: null }, costs));
}
