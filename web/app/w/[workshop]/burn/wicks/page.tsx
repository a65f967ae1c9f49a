import { WAX_FAMILIES } from "@hearth/core";
import { z } from "zod";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { triedIn } from "@/server/trials";
import { Wicks } from "@/stations/burn/wicks";

export const metadata = { title: "Wicks that passed" };

export default async function WicksPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await here();
  const asked = await askedOf(searchParams, { family: z.enum(WAX_FAMILIES), state: z.enum(["passed", "open"]) });
  const all = await triedIn(db, workshop.id, { family: asked.family, passed: asked.state === "passed" });
  const q = (asked.q ?? "").toLowerCase();
  const tried = all.filter(
    (one) => (asked.state !== "open" || one.decided === "") && (q === "" || `${one.wickName} ${one.vessel} ${one.wax} ${one.scent}`.toLowerCase().includes(q)),
  );
  return <Wicks tried={tried} families={[...WAX_FAMILIES]} />;
}
