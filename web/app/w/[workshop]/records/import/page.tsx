import { ImportRecord } from "@/features/records/import";
import { requestContext } from "@/server/http/context";

export const metadata = { title: "Import a record" };

export default async function ImportPage() {
  const { workshop } = await requestContext();
  return <ImportRecord workshopName={workshop.name} />;
}
