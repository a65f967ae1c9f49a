import { z } from "zod";
import { workshopRoute } from "@/server/auth/authorize";
import { formulaForPlan } from "@/server/formulas/formulas";
import { errorResponse } from "@/server/http/respond";

/** One formula as it is now, for a plan that has chosen it by its name. */
export const GET = workshopRoute(
  { area: "plan", action: "see" },
  { formula: z.uuid() },
  "There is no such formula.",
  async (_request, { db, workshop, named }) => {
    const found = await formulaForPlan(db, workshop.id, named.formula);
    return found ? Response.json(found) : errorResponse(404, "There is no such formula.");
  },
);
