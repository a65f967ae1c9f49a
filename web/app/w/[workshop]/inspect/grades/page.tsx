import { Grades } from "@/features/inspect/grades";
import { readGradingRules } from "@/server/findings/rules";
import { requestContext } from "@/server/http/context";

export const metadata = { title: "Grading rules" };

export default async function GradesPage() {
  const { db, workshop } = await requestContext();
  const { rules, version } = await readGradingRules(db, workshop.id);
  return <Grades key={version} rules={rules} version={version} />;
}
