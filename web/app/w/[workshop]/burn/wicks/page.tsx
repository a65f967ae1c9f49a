import { WAX_FAMILIES } from "@hearth/core";
import { z } from "zod";
import { Wicks } from "@/features/burn/wicks";
import { triedIn } from "@/server/burn/trials";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";

export const metadata = { title: "Proven wicks" };

export default async function WicksPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await requestContext();
  const asked = await parseQuery(searchParams, { family: z.enum(WAX_FAMILIES), state: z.enum(["passed", "open"]) });
  const all = await triedIn(db, workshop.id, { family: asked.family, passed: asked.state === "passed" });
  const q = (asked.q ?? "").toLowerCase();
  const tried = all.filter(
    (item) =>
      (asked.state !== "open" || item.decided === "") && (q === "" || `${item.wickName} ${item.vessel} ${item.wax} ${item.scent}`.toLowerCase().includes(q)),
  );
  return <Wicks tried={tried} families={[...WAX_FAMILIES]} />;
}
