import { answerQuantity, quantityRequest } from "@hearth/core";
import { calculationRoute } from "@/server/http/respond";

/** Whether packs hold what they state, and which fill would. */
export const POST = calculationRoute(
  quantityRequest,
  (asked) => answerQuantity(asked),
  () => null,
);
