import { answerForecast, forecastRequest } from "@hearth/core";
import { calculation } from "@/server/respond";

/** When a pot reaches temperatures, from its readings so far. */
export const POST = calculation(forecastRequest, answerForecast, () => null);
