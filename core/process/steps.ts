import type { BatchPlan } from "../batch/plan";
import { actKindOf } from "./acts";
import type { Step } from "./kind";

/** The steps of a batch, in order: what each act of its process asks for. */
export const stepsOf = (plan: BatchPlan): Step[] => plan.process.acts.flatMap((one) => actKindOf(one.kind).steps(one as never, plan));
