import { answerFill, fillRequest } from "@hearth/core";
import { calculation } from "@/server/respond";

export const POST = calculation(fillRequest, answerFill, (error) => (error instanceof RangeError ? { geometry: [error.message] } : null));
