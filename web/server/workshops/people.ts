import type { Role } from "@hearth/core";
import { and, asc, desc, eq, gt, isNull, lt, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { auditLog, devices, invitations, members } from "@/data/tables/people";
import { people } from "@/data/tables/workshop";

export interface PersonShown {
  id: string;
  name: string;
  archived: boolean;
  role: Role | null;
  hasAccount: boolean;
  hasPin: boolean;
  /** Until when a link for this person holds. */
  invitedUntil: string | null;
}
export interface DeviceShown {
  id: string;
  name: string;
  role: Role;
  codeUntil: string | null;
  joinedAt: string | null;
  seenAt: string | null;
  person: string | null;
}

const iso = (at: string | null): string | null => (at === null ? null : new Date(at).toISOString());

/** Returns who works in a workshop and by what they are known, and its devices; those that were cut off are gone from the list. */
export async function readPeople(db: Database, workshopId: string, now: string): Promise<{ people: PersonShown[]; devices: DeviceShown[] }> {
  const [staff, open, joined] = await Promise.all([
    db
      .select({ id: people.id, name: people.name, archived: people.archived, role: members.role, accountId: members.accountId, pinHash: members.pinHash })
      .from(people)
      .leftJoin(members, and(eq(members.workshopId, people.workshopId), eq(members.personId, people.id)))
      .where(eq(people.workshopId, workshopId))
      .orderBy(asc(people.name)),
    db
      .select({ personId: invitations.personId, until: invitations.until })
      .from(invitations)
      .where(and(eq(invitations.workshopId, workshopId), isNull(invitations.usedAt), gt(invitations.until, now))),
    db
      .select({
        id: devices.id,
        name: devices.name,
        role: devices.role,
        codeUntil: devices.codeUntil,
        joinedAt: devices.joinedAt,
        seenAt: devices.seenAt,
        person: people.name,
      })
      .from(devices)
      .leftJoin(people, and(eq(people.workshopId, devices.workshopId), eq(people.id, devices.personId), gt(devices.personUntil, now)))
      .where(and(eq(devices.workshopId, workshopId), isNull(devices.cutAt)))
      .orderBy(asc(devices.name)),
  ]);
  return {
    people: staff.map(({ accountId, pinHash, ...rest }) => ({
      ...rest,
      hasAccount: accountId !== null,
      hasPin: pinHash !== null,
      invitedUntil: iso(open.find((link) => link.personId === rest.id)?.until ?? null),
    })),
    devices: joined
      .filter((item) => item.joinedAt !== null || (item.codeUntil !== null && Date.parse(item.codeUntil) > Date.parse(now)))
      .map((item) => ({ ...item, codeUntil: iso(item.codeUntil), joinedAt: iso(item.joinedAt), seenAt: iso(item.seenAt) })),
  };
}

/** Returns whom a device offers: those who have a PIN. */
export const whoHasPin = (db: Database, workshopId: string): Promise<{ id: string; name: string }[]> =>
  db
    .select({ id: people.id, name: people.name })
    .from(members)
    .innerJoin(people, and(eq(people.workshopId, members.workshopId), eq(people.id, members.personId)))
    .where(and(eq(members.workshopId, workshopId), sql`${members.pinHash} is not null and ${members.role} <> 'viewer'`, eq(people.archived, false)))
    .orderBy(asc(people.name));

export interface AuditEntry {
  seq: number;
  at: string;
  by: string | null;
  through: string;
  area: string;
  what: "insert" | "update" | "delete";
  table: string;
  name: string | null;
  changed: Record<string, [string | null, string | null]>;
}
const MAX_TRACED = 50;

/** The audit log, newest first; `before` goes on from a place. `gaps` are rows that do not follow from the one before. */
export async function readAuditLog(
  db: Database,
  workshopId: string,
  before: number | null,
): Promise<{ rows: AuditEntry[]; more: number | null; gaps: number[] }> {
  const rows = await db
    .select({
      seq: auditLog.seq,
      at: auditLog.at,
      by: people.name,
      through: auditLog.through,
      area: auditLog.area,
      what: auditLog.what,
      detail: auditLog.detail,
    })
    .from(auditLog)
    .leftJoin(people, and(eq(people.workshopId, auditLog.workshopId), eq(people.id, auditLog.personId)))
    .where(and(eq(auditLog.workshopId, workshopId), before === null ? undefined : lt(auditLog.seq, before)))
    .orderBy(desc(auditLog.seq))
    .limit(MAX_TRACED + 1);
  const { rows: gaps } = await db.execute<{ seq: string }>(sql`select seq from audit_log_gaps(${workshopId}) limit 20`);
  const page = rows.slice(0, MAX_TRACED);
  return {
    rows: page.map(({ detail, ...row }) => {
      const { table, name, changed } = detail as { table: string; name: string | null; changed: AuditEntry["changed"] };
      return { ...row, at: new Date(row.at).toISOString(), what: row.what as AuditEntry["what"], table, name, changed };
    }),
    more: rows.length > MAX_TRACED ? (page.at(-1)?.seq ?? null) : null,
    gaps: gaps.map((gap) => Number(gap.seq)),
  };
}
