import { eq } from "drizzle-orm";
import { v7 } from "uuid";
import { afterAll, beforeAll, beforeEach, expect, it, vi } from "vitest";
import { GET } from "@/app/api/workshops/[workshop]/live/route";
import { devices, invitations, members } from "@/data/tables/people";
import { people } from "@/data/tables/workshop";
import { changeMark, closeStreams, notifyPages } from "@/server/http/change-stream";
import { openDoor, Visitor } from "@/testing/auth";
import { type TestDatabase, testDatabase } from "@/testing/database";
import { hashOf } from "./secrets";

let test: TestDatabase;
let workshopId: string;
beforeAll(async () => {
  test = await testDatabase();
  process.env.DATABASE_URL = test.url;
  openDoor();
});
afterAll(() => test.pool.end());
beforeEach(async () => {
  workshopId = await test.workshop();
});

/** What a page of this visitor is told, as it comes; `over` once its stream has ended. */
async function listening(visitor: Visitor) {
  const told: Record<string, unknown>[] = [];
  let begun = false;
  const hear = (change: Record<string, unknown>) => {
    // That anything at all changed is what these tests knock with.
    if (Object.keys(change).length > 1) told.push(change);
    else begun ||= change.workshop === workshopId;
  };
  const at = { over: false };
  const answer = await GET(new Request("http://127.0.0.1:4380/", { headers: visitor.headers() }), { params: Promise.resolve({ workshop: workshopId }) });
  void (async () => {
    for await (const piece of answer.body as unknown as AsyncIterable<Uint8Array>)
      for (const [, data] of new TextDecoder().decode(piece).matchAll(/^data: (.*)$/gm)) hear(JSON.parse(data ?? "{}"));
    at.over = true;
  })();
  // It has begun, and its server listens to the database: what is told arrives.
  await vi.waitFor(async () => {
    await notifyPages(test.db, { workshop: workshopId });
    await new Promise((wait) => setTimeout(wait, 50));
    expect(begun).toBe(true);
  }, 5_000);
  return { told, at, status: answer.status };
}
/** A phone of the workshop on which somebody works as a helper, and an account with a role. */
async function phone(): Promise<{ visitor: Visitor; id: string }> {
  const [id, personId, token] = [v7(), v7(), "p".repeat(43)];
  await test.db.insert(people).values({ workshopId, id: personId, name: "Sida" });
  await test.db.insert(members).values({ workshopId, personId, role: "helper", pinHash: "x" });
  const until = "2999-01-01T00:00:00Z";
  await test.db
    .insert(devices)
    .values({ workshopId, id, name: "phone", role: "helper", tokenHash: hashOf(token), joinedAt: "2026-01-01T00:00:00Z", personId, personUntil: until });
  const visitor = new Visitor();
  visitor.cookies.set("hearth_device", `${workshopId}.${token}`);
  return { visitor, id };
}
async function account(role: "editor" | "viewer"): Promise<Visitor> {
  const [personId, token] = [v7(), v7()];
  await test.db.insert(people).values({ workshopId, id: personId, name: role });
  await test.db.insert(invitations).values({ workshopId, id: v7(), personId, role, hash: hashOf(token), until: "2999-01-01T00:00:00Z" });
  const visitor = new Visitor("203.0.113.60");
  await visitor.ask("accept", { workshop: workshopId, token, name: role, email: `${v7()}@shed.example`, password: "a sentence to listen by" });
  return visitor;
}

it("a page hears of its workshop alone, and of no subject that its person may not see", async () => {
  const [helper, viewer] = [await listening((await phone()).visitor), await listening(await account("viewer"))];
  const other = await test.workshop();
  const [batch, order] = [v7(), v7()];
  for (const change of [
    { workshop: other, batch },
    { workshop: workshopId, order },
    { workshop: workshopId, batch },
  ])
    await notifyPages(test.db, change);
  await vi.waitFor(() => expect(helper.told).toHaveLength(1), 5_000);
  expect(helper.told).toEqual([{ workshop: workshopId, batch }]);
  expect(viewer.told).toEqual([
    { workshop: workshopId, order },
    { workshop: workshopId, batch },
  ]);
  closeStreams();
  await vi.waitFor(() => expect([helper.at.over, viewer.at.over]).toEqual([true, true]), 5_000);
});

it("a page that nothing happened to since it was read is not told to read again; one that missed something is", async () => {
  const visitor = await account("editor");
  await listening(visitor);
  const first = async (since: string | null) => {
    const answer = await GET(new Request(`http://127.0.0.1:4380/?since=${since}`, { headers: visitor.headers() }), {
      params: Promise.resolve({ workshop: workshopId }),
    });
    const viewer = (answer.body as ReadableStream<Uint8Array>).getReader();
    // How it is asked for again always comes first; what was missed, if anything, comes with it.
    await viewer.read();
    await notifyPages(test.db, { workshop: workshopId, batch: "knock" });
    const { value } = await viewer.read();
    await viewer.cancel();
    return JSON.parse(new TextDecoder().decode(value).replace("data: ", ""));
  };
  const read = changeMark(workshopId);
  expect(read).not.toBeNull();
  expect(await first(read)).toEqual({ workshop: workshopId, batch: "knock" });
  expect(await first(read)).toEqual({ workshop: "*" });
  expect(await first("of another server")).toEqual({ workshop: "*" });
  closeStreams();
});

it("a phone that is cut off hears so at once and nothing after it, while others hear on", async () => {
  const { visitor, id } = await phone();
  const [cut, stays] = [await listening(visitor), await listening(await account("editor"))];
  await notifyPages(test.db, { workshop: workshopId, cut: id });
  await vi.waitFor(() => expect(cut.at.over).toBe(true), 5_000);
  expect(cut.told).toEqual([{ workshop: workshopId, cut: true }]);
  await notifyPages(test.db, { workshop: workshopId, batch: v7() });
  await vi.waitFor(() => expect(stays.told.some((item) => item.batch)).toBe(true), 5_000);
  expect(stays.at.over).toBe(false);
  closeStreams();
});

it("a person whose role has changed: the stream ends, and begins again by the new one", async () => {
  const visitor = await account("editor");
  const stream = await listening(visitor);
  const [member] = await test.db.select().from(members).where(eq(members.workshopId, workshopId));
  await notifyPages(test.db, { workshop: workshopId, role: v7() });
  await notifyPages(test.db, { workshop: workshopId, role: member?.personId ?? "" });
  await notifyPages(test.db, { workshop: workshopId, order: v7() });
  await vi.waitFor(() => expect(stream.at.over).toBe(true), 5_000);
  expect(stream.told.some((change) => "order" in change)).toBe(false);
});
