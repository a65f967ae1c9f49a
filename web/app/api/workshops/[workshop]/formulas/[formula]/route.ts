import { z } from "zod";
import { database } from "@/data/client";
import { formulaForPlan } from "@/server/formulas";
import { answering, refuse } from "@/server/respond";

/** One formula as it is now, for a plan that has chosen it by its name. */
export async function GET(_request: Request, { params }: { params: Promise<{ workshop: string; formula: string }> }): Promise<Response> {
  return answering(async () => {
    const at = z.object({ workshop: z.uuid(), formula: z.uuid() }).safeParse(await params);
    const found = at.success ? await formulaForPlan(database(), at.data.workshop, at.data.formula) : null;
    return found ? Response.json(found) : refuse(404, "There is no such formula.");
  });
}
