import type { Sold } from "@hearth/core";
import { sql } from "drizzle-orm";
import type { Database } from "@/data/client";

/** Returns what was sold of each thing between two moments, what brought most first: one aggregate over what became of the packs. Minor units are exact as floating point up to 2^53. */
export async function salesBetween(db: Database, workshopId: string, from: string, to: string): Promise<Sold[]> {
  const { rows } = await db.execute<Record<string, string | null>>(sql`
    with all_of_it as (
      select sellable_id, sum(sold)::int as sold, sum("second")::int as seconds, sum(given)::int as given, sum(money::float8) as money,
        sum(cost::float8) as cost, count(*) = count(cost) as known
      from sale_goods where workshop_id = ${workshopId} and at >= ${from} and at < ${to} group by sellable_id),
    market as (
      select sellable_id, sum(out)::int as taken, sum(sold + "second")::int as sold_there, sum(out) > 0 and sum(sold + "second" + given) >= sum(out) as went
      from sale_goods where workshop_id = ${workshopId} and what = 'market' and at >= ${from} and at < ${to} group by sellable_id, order_id),
    markets as (
      select sellable_id, count(*)::int as markets, count(*) filter (where went)::int as sold_out, sum(taken)::int as taken, sum(sold_there)::int as sold_there
      from market group by sellable_id)
    select a.sellable_id as id, a.sold, a.seconds, a.given, a.money, case when a.known then a.cost end as cost,
      (select n.name from sale_goods n where n.workshop_id = ${workshopId} and n.sellable_id = a.sellable_id order by n.at desc limit 1) as name,
      coalesce(m.markets, 0) as markets, coalesce(m.sold_out, 0) as sold_out, coalesce(m.taken, 0) as taken, coalesce(m.sold_there, 0) as sold_there
    from all_of_it a left join markets m on m.sellable_id = a.sellable_id order by a.money desc, name`);
  return rows.map((row) => ({
    sellable: String(row.id),
    name: String(row.name),
    sold: Number(row.sold),
    second: Number(row.seconds),
    given: Number(row.given),
    money: Number(row.money),
    cost: row.cost === null ? null : Number(row.cost),
    markets: Number(row.markets),
    soldOut: Number(row.sold_out),
    taken: Number(row.taken),
    soldThere: Number(row.sold_there),
  }));
}

/** Returns what was sold month by month, in minor units, of the workshop's own months. */
export async function salesByMonth(db: Database, workshopId: string, zone: string, from: string): Promise<{ month: string; money: number; packs: number }[]> {
  const { rows } = await db.execute<{ month: string; money: string; packs: string }>(sql`
    select to_char(at at time zone ${zone}, 'YYYY-MM') as "month", sum(money) as money, sum(sold + "second")::int as packs
    from sale_goods where workshop_id = ${workshopId} and at >= ${from} group by 1 order by 1`);
  return rows.map((row) => ({ month: row.month, money: Number(row.money), packs: Number(row.packs) }));
}

/** Returns every sale of packs as rows that a shop or a book-keeping program can map; those of one order where it is named. Days are inclusive. */
export async function salesRows(db: Database, workshopId: string, at: { from?: string | undefined; to?: string | undefined; order?: string | undefined }) {
  const { rows } = await db.execute<{
    day: string;
    number: number;
    what: string;
    order_name: string;
    name: string;
    batches: string;
    out: number;
    sold: number;
    second: number;
    given: number;
    back: number;
    money: string;
    cost: string | null;
  }>(sql`
    select (g.at at time zone w.time_zone)::date::text as "day", o.number, o.what, o.name as order_name, g.name,
      (select string_agg(distinct b.number::text, ' ') from packed_piece x join batch b on b.workshop_id = x.workshop_id and b.id = x.batch_id
        where x.workshop_id = g.workshop_id and x.pack_run_id = g.pack_run_id) as batches,
      g.out, g.sold, g.second, g.given, g.back, g.money, g.cost
    from sale_goods g join sale_order o on o.workshop_id = g.workshop_id and o.id = g.order_id
      join workshop w on w.id = g.workshop_id
    where g.workshop_id = ${workshopId}
      and (${at.order ?? null}::uuid is null or g.order_id = ${at.order ?? null}::uuid)
      and (${at.from ?? null}::date is null or g.at >= ${at.from ?? null}::date::timestamp at time zone w.time_zone)
      and (${at.to ?? null}::date is null or g.at < (${at.to ?? null}::date + 1)::timestamp at time zone w.time_zone)
    order by g.at, o.number, g.name`);
  return rows;
}
