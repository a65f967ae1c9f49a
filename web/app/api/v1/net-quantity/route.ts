import { answerQuantity, quantityRequest } from "@hearth/core";
import { calculation } from "@/server/respond";

/** Whether packs hold what they state, and which fill would. */
export const POST = calculation(
  quantityRequest,
  (asked) => answerQuantity(asked),
  () => null,
);
