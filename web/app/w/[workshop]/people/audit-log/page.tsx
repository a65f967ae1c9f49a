import { AuditLog } from "@/features/people/audit-log";
import { requestContext } from "@/server/http/context";
import { readAuditLog } from "@/server/workshops/people";

export const metadata = { title: "Audit log" };

export default async function Page({ searchParams }: { searchParams: Promise<{ before?: string }> }) {
  const { db, workshop } = await requestContext();
  const before = Number((await searchParams).before);
  return <AuditLog {...(await readAuditLog(db, workshop.id, Number.isSafeInteger(before) && before > 0 ? before : null))} />;
}
