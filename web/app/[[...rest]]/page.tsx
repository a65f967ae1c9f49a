import { redirect } from "next/navigation";
import { usualWorkshop } from "@/server/context";

export const dynamic = "force-dynamic";

/** An address that names no workshop, like one of an earlier version: it is taken as one of the workshop that this device works in. */
export default async function WithoutWorkshop({
  params,
  searchParams,
}: {
  params: Promise<{ rest?: string[] }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const id = await usualWorkshop();
  const query = new URLSearchParams(Object.entries(await searchParams).flatMap(([key, value]) => [value ?? []].flat().map((one) => [key, one])));
  const path = ((await params).rest ?? []).map((part) => encodeURIComponent(decodeURIComponent(part))).join("/");
  redirect(`/w/${id}${path && `/${path}`}${query.size > 0 ? `?${query}` : ""}`);
}
