import { SHELF_KINDS, WAX_FAMILIES } from "@hearth/core";
import { z } from "zod";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { blendParts, readLow } from "@/server/shelf";
import { readShelfPage } from "@/server/shelf-page";
import { ShelfView } from "@/stations/shelf/shelf";

export const metadata = { title: "Shelf" };

export default async function ShelfPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await here();
  const asked = await askedOf(searchParams, { kind: z.enum(SHELF_KINDS), family: z.enum(WAX_FAMILIES), low: z.literal("1"), away: z.literal("1") });
  const low = asked.low ? (await readLow(db, workshop.id, workshop.timeZone)).map((one) => one.id) : null;
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
