import type { Pool } from "pg";
import pg from "pg";

/**
 * What the program's own role may do: read everything, write what it keeps, and add to the log. It owns nothing, is no
 * superuser, and may not change, take out or empty the log or a workshop; a start that nothing followed is undone by a
 * function. Given anew at each start, so that a table of a later version is covered.
 */
export async function grantProgram(pool: Pool, role: string): Promise<void> {
  const name = pg.escapeIdentifier(role);
  const { rows } = await pool.query<{ name: string }>("select current_database() as name");
  const database = pg.escapeIdentifier(rows[0]?.name ?? "");
  // All at once: a server that works meanwhile never finds a right missing.
  const statements = [
    "revoke create on schema public from public",
    // The temporary table is that of a workshop that is read back.
    `grant connect, temporary on database ${database} to ${name}`,
    `grant usage on schema public to ${name}`,
    `revoke all on all tables in schema public from ${name}`,
    `grant select, insert, update, delete on all tables in schema public to ${name}`,
    `revoke update, delete on batch_event, trial_event, sale_order_event from ${name}`,
    `revoke insert, update, delete on audit_log from ${name}`,
    `revoke delete on batch, trial, sale_order, workshop from ${name}`,
    `grant usage on all sequences in schema public to ${name}`,
    `grant execute on function undo_start(uuid, uuid), erase_customer(uuid, uuid, text), workshop_names(), workshop_of_calendar(text), workshops_of_account(text), workshop_of_code(text), workshops_without_owner(), remove_due_workshops(timestamptz), import_workshop(uuid, jsonb) to ${name}`,
  ];
  await pool.query(`begin; ${statements.join("; ")}; commit`);
}
