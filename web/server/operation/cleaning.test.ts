import { v7 } from "uuid";
import { afterAll, beforeAll, expect, it, vi } from "vitest";
import { openDoor, Visitor } from "@/testing/auth";
import { type TestDatabase, testDatabase } from "@/testing/database";
import { clean, cleanOnce } from "./cleaning";

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
  process.env.DATABASE_URL = test.url;
  process.env.HEARTH_LOG = "silent";
  openDoor();
});
afterAll(() => test.pool.end());

it("takes out what is over, and nothing else: a workshop goes with all that is in it once its thirty days are past", async () => {
  const [stays, goes, later] = [await test.workshop(), await test.workshop(), await test.workshop()];
  await test.owner.query("update workshop set leaves_at = now() - interval '1 minute' where id = $1", [goes]);
  await test.owner.query("update workshop set leaves_at = now() + interval '1 hour' where id = $1", [later]);
  await test.owner.query("insert into person (workshop_id, id, name) values ($1, $2, 'Sida')", [goes, v7()]);
  await test.owner.query(
    "insert into auth_verification values ($1, 'x', 'y', now() - interval '1 minute', now(), now()), ($2, 'x', 'y', now() + interval '1 hour', now(), now())",
    [v7(), v7()],
  );
  expect((await new Visitor("203.0.113.7").ask("sign-in", { email: "nobody@shed.example", password: "wrong wrong wrong" })).status).toBe(401);
  const did = await clean();
  expect(did.workshops).toBeGreaterThanOrEqual(1);
  const { rows } = await test.owner.query<{ id: string }>("select id from workshop where id = any($1)", [[stays, goes, later]]);
  expect(rows.map((row) => row.id).sort()).toEqual([stays, later].sort());
  expect((await test.owner.query("select 1 from person where workshop_id = $1", [goes])).rowCount).toBe(0);
  expect((await test.owner.query("select expires_at > now() as holds from auth_verification where identifier = 'x'")).rows).toEqual([{ holds: true }]);
  // A try that was just counted still counts.
  expect((await test.owner.query("select 1 from auth_attempt where key like 'name:nobody@shed.example'")).rowCount).toBe(1);
});

it("is done by one of two servers at a time, and by the next once that one is through", async () => {
  let end = () => {};
  const first = cleanOnce(
    () =>
      new Promise((resolve) => {
        end = () => resolve({ done: 1 });
      }),
  );
  await vi.waitFor(async () => expect(await cleanOnce(async () => ({ done: 2 }))).toBeNull());
  end();
  expect(await first).toEqual({ done: 1 });
  expect(await cleanOnce(async () => ({ done: 3 }))).toEqual({ done: 3 });
});
