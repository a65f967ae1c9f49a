import { here } from "@/stations/frame/context";
import { ImportRecord } from "@/stations/records/import";

export const metadata = { title: "Read a record in" };

export default async function ImportPage() {
  const { workshop } = await here();
  return <ImportRecord workshopId={workshop.id} workshopName={workshop.name} />;
}
