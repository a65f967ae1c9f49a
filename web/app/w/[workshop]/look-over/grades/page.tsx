import { here } from "@/server/context";
import { readGrades } from "@/server/finding-rules";
import { Grades } from "@/stations/lookover/grades";

export const metadata = { title: "How jars are graded" };

export default async function GradesPage() {
  const { db, workshop } = await here();
  const { rules, version } = await readGrades(db, workshop.id);
  return <Grades key={version} rules={rules} version={version} />;
}
