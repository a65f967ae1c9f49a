import { answerScale, fieldErrors, scaleRequest, WeighOutError } from "@hearth/core";
import { calculation } from "@/server/respond";

export const POST = calculation(scaleRequest, answerScale, (error) => (error instanceof WeighOutError ? fieldErrors(error) : null));
