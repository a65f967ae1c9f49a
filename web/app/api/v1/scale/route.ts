import { answerScale, fieldErrors, scaleRequest, WeighOutError } from "@hearth/core";
import { calculationRoute } from "@/server/http/respond";

export const POST = calculationRoute(scaleRequest, answerScale, (error) => (error instanceof WeighOutError ? fieldErrors(error) : null));
