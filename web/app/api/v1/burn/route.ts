import { answerBurn, burnRequest } from "@hearth/core";
import { calculationRoute } from "@/server/http/respond";

/** What burn sessions of one candle say. */
export const POST = calculationRoute(burnRequest, answerBurn, () => null);
