import { Planner } from "@/features/plan/planner";
import { plannerProps } from "./planner-props";

export const metadata = { title: "Plan" };

export default async function PlanPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { key, props } = await plannerProps(searchParams);
  return <Planner key={key} {...props} />;
}
