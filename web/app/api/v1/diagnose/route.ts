import { answerDiagnose, diagnoseRequest } from "@hearth/core";
import { calculation } from "@/server/respond";

/** What may have caused a flaw, and what the record says of each cause. */
export const POST = calculation(diagnoseRequest, answerDiagnose, () => null);
