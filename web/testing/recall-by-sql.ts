import type pg from "pg";

/**
 * Counts a recall in plain SQL, by nothing of the program's own: lots are used up in the order in which they came, so a batch used a lot where what
 * was drawn of the material until then overlaps what had come with the lots until then. For materials that were never counted.
 */
export const RECALL_BY_SQL = `
  with came as (
    select id, sum(amount) over w - amount as low, sum(amount) over w as high from lot
    where workshop_id = $1 and not withdrawn and material_id = (select material_id from lot where workshop_id = $1 and id = $2)
    window w as (order by received_on, id)
  ), went as (
    select batch_id, amount, sum(amount) over w - amount as low, sum(amount) over w as high from stock_use
    where workshop_id = $1 and material_id = (select material_id from lot where workshop_id = $1 and id = $2)
    window w as (order by at, event_id)
  ), used as (
    select batch_id, sum(least(went.high, came.high) - greatest(went.low, came.low)) as mg
    from went join came on came.id = $2 and went.low < came.high and came.low < went.high group by 1
  ), out as (
    select distinct g.order_id from used u join packed_piece p on p.workshop_id = $1 and p.batch_id = u.batch_id
    join sale_goods g on g.workshop_id = $1 and g.pack_run_id = p.pack_run_id where g."out" > g.back
  )
  select count(*)::int as batches, coalesce(sum(mg), 0)::bigint as drawn,
    coalesce(sum((select sum((f ->> 'count')::int) from batch_event e cross join jsonb_array_elements(e.payload -> 'filled') f
      where e.workshop_id = $1 and e.batch_id = used.batch_id and e.kind = 'poured')), 0)::int as jars,
    (select count(*)::int from out) as orders
  from used`;

export interface RecallCount {
  batches: number;
  drawn: number;
  jars: number;
  orders: number;
}

/** Returns what plain SQL counts of a lot: batches, what they drew of it, jars that were filled, and orders or market days that kept packs of it. */
export async function recallBySql(owner: pg.Pool | pg.Client, workshopId: string, lotId: string): Promise<RecallCount> {
  const { rows } = await owner.query<Omit<RecallCount, "drawn"> & { drawn: string }>(RECALL_BY_SQL, [workshopId, lotId]);
  const [row] = rows;
  if (!row) throw new Error("PostgreSQL counted nothing.");
  return { ...row, drawn: Number(row.drawn) };
}
