import { here } from "@/server/context";
import { ImportRecord } from "@/stations/records/import";

export const metadata = { title: "Import a record" };

export default async function ImportPage() {
  const { workshop } = await here();
  return <ImportRecord workshopName={workshop.name} />;
}
