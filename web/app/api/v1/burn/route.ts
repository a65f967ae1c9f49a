import { answerBurn, burnRequest } from "@hearth/core";
import { calculation } from "@/server/respond";

/** What burn sessions of one candle say. */
export const POST = calculation(burnRequest, answerBurn, () => null);
