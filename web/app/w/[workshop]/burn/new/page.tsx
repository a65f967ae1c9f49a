import { z } from "zod";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { readDesign } from "@/server/trial-design";
import { DesignTrial } from "@/stations/burn/design";

export const metadata = { title: "Design a trial" };

export default async function NewTrialPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await here();
  const asked = await askedOf(searchParams, { product: z.uuid(), formula: z.uuid(), body: z.uuid(), follows: z.uuid(), option: z.string().max(6) });
  return <DesignTrial key={JSON.stringify(asked)} design={await readDesign(db, workshop.id, asked)} />;
}
