import { answerForecast, forecastRequest } from "@hearth/core";
import { calculationRoute } from "@/server/http/respond";

/** When a pot reaches temperatures, from its readings so far. */
export const POST = calculationRoute(forecastRequest, answerForecast, () => null);
