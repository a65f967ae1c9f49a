import { answerDiagnose, diagnoseRequest } from "@hearth/core";
import { calculationRoute } from "@/server/http/respond";

/** What may have caused a flaw, and what the record says of each cause. */
export const POST = calculationRoute(diagnoseRequest, answerDiagnose, () => null);
