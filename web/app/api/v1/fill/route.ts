import { answerFill, fillRequest } from "@hearth/core";
import { calculationRoute } from "@/server/http/respond";

export const POST = calculationRoute(fillRequest, answerFill, (error) => (error instanceof RangeError ? { geometry: [error.message] } : null));
