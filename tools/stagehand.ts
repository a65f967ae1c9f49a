import { randomUUID } from "node:crypto";
import { createServer } from "node:http";
import { join } from "node:path";
import { text } from "node:stream/consumers";
import { currencyFor, guessMapping, type SheetKind } from "@hearth/core";
import { eq } from "drizzle-orm";
import { v7 } from "uuid";
import { putDemo } from "../demo/load";
import { openDatabase } from "../web/data/client";
import { people, workshops } from "../web/data/tables/workshop";
import { parseText } from "../web/forms/file-parse";
import { takeSheetRows } from "../web/server/inventory/take-sheet";
import { copyWorkshop } from "../web/testing/copy-workshop";
import { restore as restoreBackup, backup as takeBackup } from "./backup";
import { freePort } from "./processes";
import type { Served } from "./serve";
import { FROZEN } from "./shots";

/** The units of an empty workshop that are not those of a new one. */
export type OtherUnits = Partial<Pick<typeof workshops.$inferInsert, "massUnit" | "temperatureUnit" | "lengthUnit" | "pounds">>;

/**
 * Starts a server for what the browser tests ask for behind the scenes: workshops of their own, with a shelf where they need one, and a database that goes away and
 * comes back. Returns its address and how it is closed.
 */
export async function startStagehand(served: Served, home: string): Promise<{ url: string; close: () => Promise<void> }> {
  const { db, pool } = openDatabase(served.databaseUrl);
  // Made once, then copied: nobody works in it.
  const template = randomUUID();
  let first: Promise<void> | null = null;
  const does: Record<string, (asked: string, body: string) => Promise<unknown>> = {
    "/stop": async () => served.database?.stop(),
    "/start": async () => served.database?.start(),
    "/take": () => takeBackup(served.databaseUrl, join(home, "taken.dump")),
    "/restore": () => restoreBackup(served.databaseUrl, join(home, "taken.dump")),
    // A row that no program wrote: what reads it fails, and goes on failing.
    "/spoil": (workshop) => pool.query("update batch set state = jsonb_build_object('format', state -> 'format') where workshop_id = $1", [workshop]),
    // Starts that cannot be read: of one batch in the log only, of another also where the plan is kept, in part, and of a third all of it. Gives their ids.
    "/damage": async (workshop) => {
      const { rows } = await pool.query<{ id: string }>("select id from batch where workshop_id = $1 order by number limit 3", [workshop]);
      const ids = rows.map((row) => row.id);
      await pool.query("alter table batch_event disable trigger user");
      await pool.query("update batch_event set payload = '{}' where workshop_id = $1 and kind = 'started' and batch_id = any($2)", [workshop, ids]);
      await pool.query("alter table batch_event enable trigger user");
      await pool.query("update batch set plan = plan #- '{products,0,count}' where workshop_id = $1 and id = $2", [workshop, ids[1]]);
      await pool.query("update batch set plan = '{}' where workshop_id = $1 and id = $2", [workshop, ids[2]]);
      return ids.join();
    },
    "/workshop": async () => {
      const id = randomUUID();
      first ??= putDemo(db, { id: template, name: "Quillfen candle shed" }, new Date(FROZEN));
      await first;
      await copyWorkshop(pool, template, id);
      return id;
    },
    // As the form makes it that is filled in with a British browser.
    "/empty": async (_, body) => {
      const { name, ...units } = JSON.parse(body) as { name: string } & OtherUnits;
      const id = randomUUID();
      const usual = { massUnit: "g", temperatureUnit: "C", timeZone: "UTC", locale: "en-GB", currency: currencyFor("en-GB", "UTC") } as const;
      await db.insert(workshops).values({ id, name, ...usual, ...units, createdAt: FROZEN });
      await db.insert(people).values({ workshopId: id, id: v7(), name: "Ilvo" });
      return id;
    },
    // Puts the rows of a CSV file on a shelf, its columns named as the program names them.
    "/shelf": async (asked, body) => {
      const [id = "", kind] = asked.split("&") as [string, SheetKind];
      const read = parseText(body);
      if (!read.ok) throw new Error(read.message);
      const [workshop] = await db.select().from(workshops).where(eq(workshops.id, id));
      if (!workshop) throw new Error(`There is no workshop ${id}.`);
      const file = { kind, sheet: read.sheet, mapping: guessMapping(kind, read.sheet.heads) };
      const taken = await db.transaction((tx) => takeSheetRows(tx, workshop, file));
      if (!taken.ok) throw new Error(taken.message);
    },
  };
  const port = await freePort();
  const server = createServer((request, response) => {
    const [what = "", asked = ""] = (request.url ?? "").split("?");
    const run = does[what] ?? (async () => Promise.reject(new Error("That is not done here.")));
    text(request)
      .then((body) => run(asked, body))
      .then(
        (answer) => response.end(typeof answer === "string" ? answer : "done"),
        (error: Error) => response.writeHead(500).end(error.message),
      );
  });
  await new Promise<void>((resolve) => server.listen(port, "127.0.0.1", resolve));
  return {
    url: `http://127.0.0.1:${port}`,
    close: async () => {
      server.close();
      await pool.end();
    },
  };
}
