import type { Pool } from "pg";
import pg from "pg";

/** Tables whose rows belong to no single workshop; each says why. Every other has a workshop's id, and is kept apart by it. */
export const GLOBAL_TABLES: Readonly<Record<string, string>> = {
  auth_user: "somebody may work in several workshops with one account",
  auth_session: "a sign-in is one account's, whatever workshop it goes to",
  auth_credential: "a password belongs to an account, not to a workshop",
  auth_verification: "what is asked back for before anybody is signed in",
  auth_second_factor: "an authenticator belongs to an account, not to a workshop",
  auth_recovery_code: "printed codes let an account back in, not a workshop",
  auth_attempt: "tries are counted before it is known who it is, or for where",
};

const BY_WORKSHOP = (key: string) => `${key} = nullif(current_setting('hearth.workshop', true), '')::uuid`;
const IN_AUTH_SCOPE = "current_setting('hearth.door', true) = 'on'";

/**
 * Keeps workshops apart in the database itself: on every table row-level security, forced, that shows and takes only rows of the
 * workshop that the transaction named; those of accounts, only to a transaction of authentication. Whoever owns the tables passes only where it says so when it connects. Tables that stand
 * already are left as they are, so that this costs nothing at a start. Throws where a table has no workshop's id.
 */
export async function enableRowLevelSecurity(pool: Pool): Promise<void> {
  const { rows } = await pool.query<{ name: string; column: string | null }>(
    `select c.relname as name, a.attname as "column" from pg_class c
     left join pg_attribute a on a.attrelid = c.oid and not a.attisdropped and a.attname = case when c.relname = 'workshop' then 'id' else 'workshop_id' end
     where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p') and not c.relispartition
       and not (c.relforcerowsecurity and exists (select 1 from pg_policy p where p.polrelid = c.oid and p.polname = 'of_workshop'))`,
  );
  for (const { name, column } of rows) {
    if (!column && !(name in GLOBAL_TABLES)) throw new Error(`The table ${name} belongs to no workshop.`);
    const table = pg.escapeIdentifier(name);
    await pool.query(
      `begin;
       alter table ${table} enable row level security;
       alter table ${table} force row level security;
       drop policy if exists of_workshop on ${table};
       drop policy if exists of_owner on ${table};
       create policy of_workshop on ${table} using (${column ? BY_WORKSHOP(pg.escapeIdentifier(column)) : IN_AUTH_SCOPE});
       create policy of_owner on ${table} to current_user using (current_setting('hearth.everything', true) = 'on');
       commit`,
    );
  }
}
