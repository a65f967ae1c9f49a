import { answerHazard, hazardRequest } from "@hearth/core";
import { calculation } from "@/server/respond";

/** The hazard label of a mixture, as a draft. */
export const POST = calculation(
  hazardRequest,
  (request) => answerHazard(request),
  () => null,
);
