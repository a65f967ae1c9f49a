import { dayAt } from "@hearth/core";
import { NotebookImport } from "@/features/records/notebook/notebook-import";
import { requestContext } from "@/server/http/context";
import { listImports, shelfNames } from "@/server/notebook/notebook";

export const metadata = { title: "Import a notebook" };

export default async function NotebookPage() {
  const { db, workshop, now } = await requestContext();
  const [shelf, imports] = await Promise.all([shelfNames(db, workshop.id), listImports(db, workshop)]);
  return <NotebookImport shelf={shelf} imports={imports} today={dayAt(now, workshop.timeZone)} />;
}
