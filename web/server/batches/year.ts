import { type JarStatus, timeOn, WAYS, type Way } from "@hearth/core";
import { sql } from "drizzle-orm";
import type { Database } from "@/data/client";

/** What a workshop did in one month of its own calendar. Weights in mg, money in minor units. */
export interface YearMonth {
  /** "2026-03". */
  month: string;
  batches: number;
  /** Batches from a notebook, of which neither stock nor hours are known. */
  fromNotes: number;
  jars: number;
  packsSold: number;
  revenue: number;
  /** Jars that became seconds, were remelted, or broke. */
  seconds: number;
  remelted: number;
  broken: number;
  /** Wax that was spilled or thrown away, with batches that were abandoned. */
  wasteMg: number;
  /** Why, with how often; the most often first. */
  reasons: { why: string; times: number }[];
  /** Labor by the times that products say, in seconds; jars of no product have none. */
  laborSeconds: number;
  /** What was drawn from stock, by what its lots cost on average. */
  materialCost: number;
  /** Amounts that were drawn of which no lot has a cost. */
  unpriced: number;
}

const EMPTY: Omit<YearMonth, "month"> = {
  batches: 0,
  fromNotes: 0,
  jars: 0,
  packsSold: 0,
  revenue: 0,
  seconds: 0,
  remelted: 0,
  broken: 0,
  wasteMg: 0,
  reasons: [],
  laborSeconds: 0,
  materialCost: 0,
  unpriced: 0,
};

const WASTED: Partial<Record<JarStatus, "seconds" | "remelted" | "broken">> = { second: "seconds", melted: "remelted", broken: "broken" };
const LOST = ["spilt", "discarded"] as const satisfies readonly Way[];

/** Returns each month of a year of the workshop, and the December before it, with which the first is compared. */
export async function yearMonths(db: Database, workshop: { id: string; timeZone: string }, year: number): Promise<{ months: YearMonth[]; before: YearMonth }> {
  const { id, timeZone: zone } = workshop;
  const from = new Date(timeOn(`${year - 1}-12-01`, 0, zone)).toISOString();
  const to = new Date(timeOn(`${year + 1}-01-01`, 0, zone)).toISOString();
  // Only states are read in which something of these years is: a batch of long ago may be remelted today.
  const inTime = sql`b.id in (select batch_id from batch_event where workshop_id = ${id} and kind in ('statusChanged', 'fated', 'transferred', 'moved') and happened_at >= ${from} and happened_at < ${to})`;
  const monthOf = (at: ReturnType<typeof sql>) => sql`to_char(${at} at time zone ${zone}, 'YYYY-MM')`;
  const poured = db.execute<{ month: string; batches: number; notes: number; jars: number; labor: number }>(sql`
    with o as (
      select o.batch_id, o.product, o.jars, o.poured_at, b.note_import_id is not null noted, b.formula_ids from outcome o
      join batch b on b.workshop_id = o.workshop_id and b.id = o.batch_id
      where o.workshop_id = ${id} and o.poured_at >= ${from} and o.poured_at < ${to}
    )
    select ${monthOf(sql`o.poured_at`)} "month", count(distinct o.batch_id)::int batches, count(distinct o.batch_id) filter (where o.noted)::int notes, sum(o.jars)::int jars,
      coalesce(sum(o.jars * (case when o.noted then 0 else p.hands end)), 0)::float8 labor
    from o left join lateral (select max(hands_seconds) hands from product p where p.workshop_id = ${id} and o.product like p.container_id::text || '%' and p.formula_id = any(o.formula_ids)) p on true
    group by 1`);
  const sold = db.execute<{ month: string; packs: number; money: number }>(sql`
    select ${monthOf(sql`at`)} "month", sum(sold + "second")::int packs, sum(money)::float8 money from sale_goods where workshop_id = ${id} and at >= ${from} and at < ${to} group by 1`);
  // A jar may have been remelted long after it was poured: the time is that of the entry.
  const jars = db.execute<{ month: string; status: JarStatus; jars: number }>(sql`
    select ${monthOf(sql`(s ->> 'at')::timestamptz`)} "month", s ->> 'to' status, sum((s ->> 'jars')::int)::int jars
    from batch b cross join lateral jsonb_array_elements(b.state -> 'jarStatuses') s
    where b.workshop_id = ${id} and ${inTime} and b.stage <> 'rehearsal' and b.stage <> 'rehearsed' and b.state -> 'jarStatuses' <> '[]'
      and s ->> 'to' in ('second', 'melted', 'broken') and s ->> 'at' >= ${from} and s ->> 'at' < ${to} group by 1, 2`);
  const spills = db.execute<{ month: string; how: Way; mg: number; times: number }>(sql`
    select ${monthOf(sql`(m ->> 'at')::timestamptz`)} "month", m ->> 'how' how, coalesce(sum((m ->> 'mg')::float8), 0)::float8 mg, count(*)::int times
    from batch b cross join lateral jsonb_array_elements(b.state -> 'moved') m
    where b.workshop_id = ${id} and ${inTime} and b.state -> 'moved' <> '[]' and b.stage in ('pot', 'rack', 'closed', 'abandoned')
      and m ->> 'how' in (${sql.join(
        LOST.map((way) => sql`${way}`),
        sql`, `,
      )}) and m ->> 'at' >= ${from} and m ->> 'at' < ${to} group by 1, 2`);
  const abandoned = db.execute<{ month: string; why: string; mg: number; times: number }>(sql`
    select ${monthOf(sql`b.closed_at`)} "month", coalesce(nullif(b.state -> 'abandoned' ->> 'why', ''), 'batch abandoned') why, coalesce(sum((b.state -> 'abandoned' ->> 'mg')::float8), 0)::float8 mg, count(*)::int times
    from batch b where b.workshop_id = ${id} and b.stage = 'abandoned' and b.state -> 'abandoned' ->> 'wax' = 'thrown away' and b.closed_at >= ${from} and b.closed_at < ${to} group by 1, 2`);
  const flaws = db.execute<{ month: string; why: string; times: number }>(sql`
    select "month", why, times from (
      select ${monthOf(sql`o.poured_at`)} "month", f.defect why, sum(f.jars)::int times from outcome o
      join outcome_flaw f on f.workshop_id = o.workshop_id and f.batch_id = o.batch_id and f.product = o.product
      where o.workshop_id = ${id} and o.poured_at >= ${from} and o.poured_at < ${to} group by 1, 2) f order by times desc`);
  const drawn = db.execute<{ month: string; cost: number; unpriced: number }>(sql`
    with price as (select material_id, sum(cost)::float8 / sum(amount) each from lot where workshop_id = ${id} and not withdrawn and cost is not null and amount > 0 group by 1)
    select ${monthOf(sql`u.at`)} "month", coalesce(sum(u.amount * p.each), 0)::float8 cost, (count(*) filter (where p.each is null))::int unpriced
    from stock_use u left join price p using (material_id) where u.workshop_id = ${id} and u.at >= ${from} and u.at < ${to} group by 1`);
  const [{ rows: p }, { rows: s }, { rows: j }, { rows: l }, { rows: a }, { rows: f }, { rows: d }] = await Promise.all([
    poured,
    sold,
    jars,
    spills,
    abandoned,
    flaws,
    drawn,
  ]);
  const monthFor = (month: string): YearMonth => {
    const row = { ...EMPTY, month, reasons: [] as YearMonth["reasons"] };
    for (const item of p)
      if (item.month === month) Object.assign(row, { batches: item.batches, fromNotes: item.notes, jars: item.jars, laborSeconds: item.labor });
    for (const item of s) if (item.month === month) Object.assign(row, { packsSold: item.packs, revenue: item.money });
    for (const item of j) {
      const key = WASTED[item.status];
      if (item.month === month && key) row[key] += item.jars;
    }
    for (const item of l) if (item.month === month) row.wasteMg += item.mg;
    for (const item of a) if (item.month === month) row.wasteMg += item.mg;
    for (const item of d) if (item.month === month) Object.assign(row, { materialCost: item.cost, unpriced: item.unpriced });
    row.reasons = [
      ...l.filter((item) => item.month === month).map((item) => ({ why: `wax ${WAYS[item.how]}`, times: item.times })),
      ...a.filter((item) => item.month === month).map((item) => ({ why: item.why, times: item.times })),
      // Why jars were downgraded is told by the flaws of the month's pours.
      ...(row.seconds + row.remelted > 0 ? f.filter((item) => item.month === month).map((item) => ({ why: item.why, times: item.times })) : []),
    ]
      .sort((x, y) => y.times - x.times)
      .slice(0, 3);
    return row;
  };
  const names = Array.from({ length: 12 }, (_, index) => `${year}-${String(index + 1).padStart(2, "0")}`);
  return { months: names.map(monthFor), before: monthFor(`${year - 1}-12`) };
}
