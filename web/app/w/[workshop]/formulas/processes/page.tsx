import { ProcessList } from "@/features/formulas/processes";
import { listProcesses } from "@/server/formulas/processes";
import { requestContext } from "@/server/http/context";

export const metadata = { title: "Processes" };

export default async function ProcessesPage() {
  const { db, workshop } = await requestContext();
  return <ProcessList processes={await listProcesses(db, workshop.id)} />;
}
