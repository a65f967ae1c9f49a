import { STOCKED, writeDose } from "@hearth/core";
import { notFound } from "next/navigation";
import { z } from "zod";
import { Notebook } from "@/catalogue/notebook";
import { ThingView } from "@/features/shelf/thing";
import { listColors } from "@/server/formulas/colors";
import { listOilTests } from "@/server/formulas/oil-tests";
import { requestContext } from "@/server/http/context";
import { sheetsOf } from "@/server/inventory/safety-data-sheets";
import { readShelf, readStockHistory, readStocks } from "@/server/inventory/shelf";
import { byKind } from "@/server/shared/by-kind";
import { notesOf } from "@/server/workshops/notes";

export const metadata = { title: "Stock" };

export default async function ThingPage({ params }: { params: Promise<{ kind: string; id: string }> }) {
  const { kind, id } = await params;
  const known = z.enum(STOCKED).safeParse(kind);
  if (!known.success || !z.uuid().safeParse(id).success) notFound();
  const { db, workshop } = await requestContext();
  const [shelf, stocks, history, notes, colors, sheets, oilTests] = await Promise.all([
    readShelf(db, workshop.id),
    readStocks(db, workshop.id, workshop.timeZone),
    readStockHistory(db, workshop.id, id),
    notesOf(db, workshop.id, known.data, id),
    listColors(db, workshop.id, id),
    sheetsOf(db, workshop.id, id),
    known.data === "fragrance" ? listOilTests(db, workshop.id, id) : [],
  ]);
  const rows = byKind(shelf)[known.data];
  const row = (rows as { id: string; name: string; low: number | null }[]).find((row) => row.id === id);
  if (!row) notFound();
  return (
    <ThingView
      key={id}
      of={{ kind: known.data, id, name: row.name, density: shelf.fragrances.find((fragrance) => fragrance.id === id)?.density ?? null }}
      low={row.low}
      stock={stocks[id] ?? null}
      history={history}
      vessel={shelf.vessels.find((vessel) => vessel.id === id) ?? null}
      waxes={shelf.waxes}
      wicks={shelf.wicks}
      colors={colors.map(({ name, recipe }) => {
        const nameOf = (list: { id: string; name: string }[], text: string | null) => list.find((other) => other.id === text)?.name;
        return {
          name,
          dyes: recipe.dyes.map((dye) => `${writeDose(dye, workshop.massUnit)} ${nameOf(shelf.dyes, dye.id) ?? "a dye no longer here"}`).join(", "),
          tried: [nameOf(shelf.waxes, recipe.waxId), nameOf(shelf.fragrances, recipe.fragranceId)].filter(Boolean).join(" with "),
        };
      })}
      sheets={sheets}
      oil={shelf.fragrances.find((fragrance) => fragrance.id === id) ?? null}
      oils={shelf.fragrances.map(({ id: oilId, name }) => ({ id: oilId, name }))}
      oilTests={oilTests}
      wax={shelf.waxes.find((wax) => wax.id === id) ?? null}
      notes={<Notebook kind={known.data} of={id} notes={notes} />}
    />
  );
}
