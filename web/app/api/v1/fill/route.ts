import { answerFill, fillRequest } from "@hearth/core";
import { calculation } from "@/stations/respond";

export const POST = calculation(fillRequest, answerFill, (error) => (error instanceof RangeError ? { geometry: [error.message] } : null));
