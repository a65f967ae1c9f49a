import { sql } from "drizzle-orm";
import { bigint, boolean, integer, pgTable, primaryKey, text, timestamp, uniqueIndex, varchar } from "drizzle-orm/pg-core";

const moment = (name: string) => timestamp(name, { withTimezone: true, mode: "date" });

/*
 * Who may come in at all. These rows belong to no single workshop: one person may work in several. They are read and written by
 * authentication alone, in transactions that say so. Their columns are those that the sign-in library asks for.
 */

export const authUsers = pgTable(
  "auth_user",
  {
    id: text("id").primaryKey(),
    name: text("name").notNull(),
    email: text("email").notNull(),
    emailVerified: boolean("email_verified").notNull().default(false),
    image: text("image"),
    twoFactorEnabled: boolean("two_factor_enabled").default(false),
    createdAt: moment("created_at").notNull(),
    updatedAt: moment("updated_at").notNull(),
  },
  (table) => [uniqueIndex("auth_user_email").on(table.email)],
);

const ofUser = () =>
  text("user_id")
    .notNull()
    .references(() => authUsers.id, { onDelete: "cascade" });

export const authSessions = pgTable("auth_session", {
  id: text("id").primaryKey(),
  userId: ofUser(),
  token: text("token").notNull().unique(),
  expiresAt: moment("expires_at").notNull(),
  ipAddress: text("ip_address"),
  userAgent: text("user_agent"),
  createdAt: moment("created_at").notNull(),
  updatedAt: moment("updated_at").notNull(),
});

/** Credentials of an account: a password, hashed with scrypt. */
export const authCredentials = pgTable("auth_credential", {
  id: text("id").primaryKey(),
  userId: ofUser(),
  accountId: text("account_id").notNull(),
  providerId: text("provider_id").notNull(),
  accessToken: text("access_token"),
  refreshToken: text("refresh_token"),
  idToken: text("id_token"),
  accessTokenExpiresAt: moment("access_token_expires_at"),
  refreshTokenExpiresAt: moment("refresh_token_expires_at"),
  scope: text("scope"),
  password: text("password"),
  createdAt: moment("created_at").notNull(),
  updatedAt: moment("updated_at").notNull(),
});

export const authVerifications = pgTable("auth_verification", {
  id: text("id").primaryKey(),
  identifier: text("identifier").notNull(),
  value: text("value").notNull(),
  expiresAt: moment("expires_at").notNull(),
  createdAt: moment("created_at").notNull(),
  updatedAt: moment("updated_at").notNull(),
});

export const authSecondFactors = pgTable("auth_second_factor", {
  id: text("id").primaryKey(),
  userId: ofUser(),
  secret: text("secret").notNull(),
  backupCodes: text("backup_codes").notNull(),
  verified: boolean("verified").default(true),
  failedVerificationCount: integer("failed_verification_count").default(0),
  lockedUntil: moment("locked_until"),
});

/** Printed codes that let somebody back in who lost the password; each opens once. Only their hashes are kept. */
export const authRecoveryCodes = pgTable(
  "auth_recovery_code",
  {
    userId: ofUser(),
    hash: text("hash").notNull(),
    madeAt: moment("made_at").notNull().default(sql`now()`),
  },
  (table) => [primaryKey({ columns: [table.userId, table.hash] })],
);

/**
 * Tries that were counted, each with its limit; the columns are those of the library that counts, which alone asks it.
 * @public
 */
export const authAttempts = pgTable("auth_attempt", {
  key: varchar("key", { length: 255 }).primaryKey(),
  points: integer("points").notNull().default(0),
  expire: bigint("expire", { mode: "number" }),
});
