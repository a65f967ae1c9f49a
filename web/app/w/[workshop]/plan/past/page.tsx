import { PastPlanner } from "@/features/plan/past-planner";
import { plannerProps } from "../planner-props";

export const metadata = { title: "Past batch" };

export default async function PastBatchPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { key, props } = await plannerProps(searchParams);
  return <PastPlanner key={key} {...props} />;
}
