import { WAX_FAMILIES } from "@hearth/core";
import { z } from "zod";
import { Wicks } from "@/features/burn/wicks";
import { triedIn } from "@/server/burn/trials";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";

/** Rows of one page. */
const PAGE = 50;

export const metadata = { title: "Proven wicks" };

export default async function WicksPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await requestContext();
  const asked = await parseQuery(searchParams, { family: z.enum(WAX_FAMILIES), state: z.enum(["passed", "open"]) });
  const all = await triedIn(db, workshop.id, { family: asked.family, passed: asked.state === "passed" });
  const q = (asked.q ?? "").toLowerCase();
  const tried = all
    .filter(
      (item) =>
        (asked.state !== "open" || item.decided === "") && (q === "" || `${item.wickName} ${item.vessel} ${item.wax} ${item.scent}`.toLowerCase().includes(q)),
    )
    .sort(
      (a, b) =>
        a.family.localeCompare(b.family) || a.widthUm - b.widthUm || Number(b.decided === "passed") - Number(a.decided === "passed") || b.trial - a.trial,
    );
  const pages = Math.max(1, Math.ceil(tried.length / PAGE));
  const page = Math.min(asked.page ?? 1, pages);
  return <Wicks tried={tried.slice((page - 1) * PAGE, page * PAGE)} count={tried.length} page={page} pages={pages} families={[...WAX_FAMILIES]} />;
}
