import { ROLES } from "@hearth/core";
import { bigint, foreignKey, index, jsonb, pgTable, primaryKey, text, uuid } from "drizzle-orm/pg-core";
import { instant } from "./entry";
import { ofWorkshop, people } from "./workshop";

const role = () => text("role", { enum: [...ROLES] as [string, ...string[]] as unknown as typeof ROLES });

/** What a person may do in this workshop, and how that person is known: by an account, by a PIN on the workshop's devices, or both. */
export const members = pgTable(
  "member",
  {
    workshopId: ofWorkshop(),
    personId: uuid("person_id").notNull(),
    role: role().notNull(),
    /** The account; no foreign key to it, since accounts belong to no workshop. */
    accountId: text("account_id"),
    pinHash: text("pin_hash"),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.personId] }),
    foreignKey({ columns: [table.workshopId, table.personId], foreignColumns: [people.workshopId, people.id], name: "member_person" }).onDelete("cascade"),
    index("member_by_account").on(table.accountId),
  ],
);

/** A link by which somebody makes an account and becomes a member. Only its hash is kept; it opens once. */
export const invitations = pgTable(
  "invitation",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    personId: uuid("person_id").notNull(),
    role: role().notNull(),
    hash: text("hash").notNull(),
    until: instant("until").notNull(),
    usedAt: instant("used_at"),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.id] }),
    foreignKey({ columns: [table.workshopId, table.personId], foreignColumns: [people.workshopId, people.id], name: "invitation_person" }).onDelete("cascade"),
  ],
);

/** A phone or tablet of the workshop. It is asked in with a code, and known by a token afterwards; only their hashes are kept. */
export const devices = pgTable(
  "device",
  {
    workshopId: ofWorkshop(),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    /** The most that anybody may do on it. */
    role: role().notNull(),
    codeHash: text("code_hash"),
    codeUntil: instant("code_until"),
    tokenHash: text("token_hash"),
    joinedAt: instant("joined_at"),
    seenAt: instant("seen_at"),
    cutAt: instant("cut_at"),
    /** Who works on it now, and until when without the PIN again. */
    personId: uuid("person_id"),
    personUntil: instant("person_until"),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.id] }), index("device_by_code").on(table.codeHash)],
);

/** Who worked on a device, by PIN, from when until when: an entry that waited on it may only be logged in the name of somebody who was there. */
export const deviceSessions = pgTable(
  "device_session",
  {
    workshopId: ofWorkshop(),
    deviceId: uuid("device_id").notNull(),
    personId: uuid("person_id").notNull(),
    startedAt: instant("started_at").notNull(),
    endedAt: instant("ended_at").notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.workshopId, table.deviceId, table.personId, table.startedAt] }),
    foreignKey({ columns: [table.workshopId, table.deviceId], foreignColumns: [devices.workshopId, devices.id] }).onDelete("cascade"),
    foreignKey({ columns: [table.workshopId, table.personId], foreignColumns: [people.workshopId, people.id] }).onDelete("cascade"),
  ],
);

/** Who changed what. Append-only: a trigger refuses UPDATE and DELETE; each row carries the hash of the one before it, so that a gap shows. */
export const auditLog = pgTable(
  "audit_log",
  {
    workshopId: ofWorkshop(),
    seq: bigint("seq", { mode: "number" }).notNull(),
    at: instant("at").notNull(),
    personId: uuid("person_id"),
    /** By what the person was known: "this machine", an account, or a device's name. */
    through: text("through").notNull(),
    area: text("area").notNull(),
    what: text("what").notNull(),
    detail: jsonb("detail").$type<unknown>(),
    hash: text("hash").notNull(),
  },
  (table) => [primaryKey({ columns: [table.workshopId, table.seq] })],
);
