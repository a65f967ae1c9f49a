import { z } from "zod";
import { DesignTrial } from "@/features/burn/design";
import { readDesign } from "@/server/burn/trial-design";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";

export const metadata = { title: "Design a trial" };

export default async function NewTrialPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await requestContext();
  const asked = await parseQuery(searchParams, {
    product: z.uuid(),
    formula: z.uuid(),
    container: z.uuid(),
    follows: z.uuid(),
    variant: z.string().max(6),
    /** A batch whose jars are tested. */
    batch: z.uuid(),
  });
  return <DesignTrial key={JSON.stringify(asked)} design={await readDesign(db, workshop.id, asked)} />;
}
