import { here } from "@/server/context";
import { listProcesses } from "@/server/processes";
import { ProcessList } from "@/stations/formulas/processes";

export const metadata = { title: "Processes" };

export default async function ProcessesPage() {
  const { db, workshop } = await here();
  return <ProcessList processes={await listProcesses(db, workshop.id)} />;
}
