import { answerHazard, hazardRequest } from "@hearth/core";
import { calculationRoute } from "@/server/http/respond";

/** The hazard label of a mixture, as a draft. */
export const POST = calculationRoute(
  hazardRequest,
  (request) => answerHazard(request),
  () => null,
);
