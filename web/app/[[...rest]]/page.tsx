import { notFound, redirect } from "next/navigation";
import { SECTIONS } from "@/app/w/[workshop]/sections";
import { defaultWorkshop } from "@/server/http/context";

export const dynamic = "force-dynamic";

/** What addresses begin with that name no workshop, in versions that had only one. */
const OLD_ADDRESSES = new Set([...SECTIONS.map((section) => section.path.slice(1)).filter(Boolean), "look-over", "people", "words", "first"]);

/** An address that names no workshop, like one of an earlier version: it is taken as one of the workshop that this device works in. */
export default async function WithoutWorkshop({
  params,
  searchParams,
}: {
  params: Promise<{ rest?: string[] }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const [first] = (await params).rest ?? [];
  // Only what an earlier version had leads on; a slip in an address leads nowhere.
  if (first !== undefined && !OLD_ADDRESSES.has(first)) notFound();
  const id = await defaultWorkshop();
  const query = new URLSearchParams(Object.entries(await searchParams).flatMap(([key, value]) => [value ?? []].flat().map((text) => [key, text])));
  const path = ((await params).rest ?? []).map((part) => encodeURIComponent(decodeURIComponent(part))).join("/");
  redirect(`/w/${id}${path && `/${path}`}${query.size > 0 ? `?${query}` : ""}`);
}
