import { SHELF_KINDS, WAX_FAMILIES } from "@hearth/core";
import { z } from "zod";
import { ShelfView } from "@/features/shelf/shelf";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";
import { blendParts, readLow } from "@/server/inventory/shelf";
import { readShelfPage } from "@/server/inventory/shelf-page";

export const metadata = { title: "Shelf" };

export default async function ShelfPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { kind: z.enum(SHELF_KINDS), family: z.enum(WAX_FAMILIES), low: z.literal("1"), away: z.literal("1") });
  const low = asked.low ? (await readLow(db, workshop.id, workshop.timeZone)).map((item) => item.id) : null;
  const page = await readShelfPage(db, workshop, { ...asked, low: asked.low === "1", away: asked.away === "1" }, low, now);
  return (
    <ShelfView
      {...page}
      waxes={await blendParts(db, workshop.id)}
      kind={asked.kind ?? null}
      page={Math.min(asked.page ?? 1, page.pages)}
      narrowed={Boolean(asked.q || asked.family || asked.low || asked.away)}
    />
  );
}
