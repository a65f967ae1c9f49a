import { STOCKED } from "@hearth/core";
import { notFound } from "next/navigation";
import { z } from "zod";
import { byKind } from "@/server/by-kind";
import { here } from "@/server/context";
import { readShelf, readStockHistory, readStocks } from "@/server/shelf";
import { ThingView } from "@/stations/shelf/thing";

export const metadata = { title: "Stock" };

export default async function ThingPage({ params }: { params: Promise<{ kind: string; id: string }> }) {
  const { kind, id } = await params;
  const known = z.enum(STOCKED).safeParse(kind);
  if (!known.success || !z.uuid().safeParse(id).success) notFound();
  const { db, workshop } = await here();
  const [shelf, stocks, history] = await Promise.all([
    readShelf(db, workshop.id),
    readStocks(db, workshop.id, workshop.timeZone),
    readStockHistory(db, workshop.id, id),
  ]);
  const rows = byKind(shelf)[known.data];
  const row = (rows as { id: string; name: string; low: number | null }[]).find((one) => one.id === id);
  if (!row) notFound();
  return (
    <ThingView
      key={id}
      of={{ kind: known.data, id, name: row.name, density: shelf.fragrances.find((one) => one.id === id)?.density ?? null }}
      low={row.low}
      stock={stocks[id] ?? null}
      history={history}
      vessel={shelf.vessels.find((one) => one.id === id) ?? null}
      waxes={shelf.waxes}
      wicks={shelf.wicks}
    />
  );
}
