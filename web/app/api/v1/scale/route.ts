import { answerScale, fieldErrors, ScaleError, scaleRequest } from "@hearth/core";
import { calculation } from "@/stations/respond";

export const POST = calculation(scaleRequest, answerScale, (error) => (error instanceof ScaleError ? fieldErrors(error) : null));
