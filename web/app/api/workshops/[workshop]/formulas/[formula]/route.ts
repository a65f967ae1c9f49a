import { z } from "zod";
import { atWorkshop } from "@/server/door/door";
import { formulaForPlan } from "@/server/formulas";
import { refuse } from "@/server/respond";

/** One formula as it is now, for a plan that has chosen it by its name. */
export const GET = atWorkshop({ area: "plan", act: "see" }, { formula: z.uuid() }, "There is no such formula.", async (_request, { db, workshop, named }) => {
  const found = await formulaForPlan(db, workshop.id, named.formula);
  return found ? Response.json(found) : refuse(404, "There is no such formula.");
});
