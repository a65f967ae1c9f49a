import { fileURLToPath } from "node:url";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import { openDatabase } from "./client";

/** Brings the database at `url` up to the newest migration. Forward only. */
export async function migrateDatabase(url: string): Promise<void> {
  const { db, pool } = openDatabase(url);
  try {
    await migrate(db, { migrationsFolder: fileURLToPath(new URL("./migrations", import.meta.url)) });
  } finally {
    await pool.end();
  }
}
