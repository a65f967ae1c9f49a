import { NextRequest } from "next/server";
import { v7 } from "uuid";
import { expect, it, vi } from "vitest";
import { POST as ofBatch } from "@/app/api/workshops/[workshop]/batches/[batch]/events/route";
import { POST as ofOrder } from "@/app/api/workshops/[workshop]/orders/[order]/events/route";
import { POST as ofTrial } from "@/app/api/workshops/[workshop]/trials/[trial]/events/route";
import { proxy } from "@/proxy";
import { STARTED } from "@/testing/stored-batch";
import { inStoredWorkshop, stored, workshopId } from "@/testing/stored-workshop";

vi.mock("next/headers", () => import("@/testing/headers"));
inStoredWorkshop();

const address = (what: string, id: string) => `http://127.0.0.1:4380/api/workshops/${workshopId}/${what}/${id}/events`;
const sent = (path: string, body: BodyInit) => new Request(path, { method: "POST", body, headers: { "content-type": "application/json" } });
/** An entry sent to each of the three logs. */
const ROUTES = {
  batches: (body: BodyInit, id = stored.batch) => ofBatch(sent(address("batches", id), body), { params: Promise.resolve({ workshop: workshopId, batch: id }) }),
  trials: (body: BodyInit, id = v7()) => ofTrial(sent(address("trials", id), body), { params: Promise.resolve({ workshop: workshopId, trial: id }) }),
  orders: (body: BodyInit, id = v7()) => ofOrder(sent(address("orders", id), body), { params: Promise.resolve({ workshop: workshopId, order: id }) }),
};
const fieldsOf = async (answer: Response) => (await answer.json()).error.fields as Record<string, string[]>;

it.each(Object.keys(ROUTES) as (keyof typeof ROUTES)[])(
  "an entry of %s that cannot be read is told at its field, and one that is too long is refused",
  async (what) => {
    const send = ROUTES[what];
    expect((await send("no json")).status).toBe(400);
    expect((await send(JSON.stringify({ text: "x".repeat(120_000) }))).status).toBe(413);
    expect(await fieldsOf(await send('{"kind":"read"}'))).not.toEqual({});
    const head = { id: v7(), happenedAt: STARTED, personId: null };
    expect((await send(JSON.stringify({ ...head, kind: "no such kind", payload: {} }))).status).toBe(400);
  },
);

it("an entry of an order says what is wrong with what went out", async () => {
  const went = { sellable: v7(), name: "Rain", packs: 0, to: "sold" };
  const of = async (payload: object) =>
    fieldsOf(await ROUTES.orders(JSON.stringify({ id: v7(), happenedAt: STARTED, personId: null, kind: "packsResolved", payload })));
  expect(await of(went)).toMatchObject({ packs: ["At least one."] });
  expect(await of({ ...went, packs: 1, to: "eaten" })).toHaveProperty("to");
});

it("an entry that is well formed is written once, however often it is sent", async () => {
  const entry = {
    id: v7(),
    happenedAt: STARTED,
    personId: null,
    instrumentId: null,
    corrects: null,
    kind: "weighed",
    payload: { pot: 0, componentId: stored.wax, mg: 127_000 },
  };
  const [first, again] = [await ROUTES.batches(JSON.stringify(entry)), await ROUTES.batches(JSON.stringify(entry))];
  expect(await first.json()).toMatchObject({ ok: true, id: entry.id, repeated: false });
  expect(await again.json()).toMatchObject({ ok: true, id: entry.id, repeated: true });
});

it("an entry that is not for this server, or from other sites, is refused before the route, with the headers of every answer", async () => {
  const ask = (headers: Record<string, string>) =>
    proxy(new NextRequest(address("batches", stored.batch), { method: "POST", headers: { host: "127.0.0.1:4380", ...headers }, body: "{}" }));
  expect((await ask({ host: "records.example" }))?.status).toBe(403);
  const foreign = await ask({ origin: "http://elsewhere.example" });
  expect(foreign?.status).toBe(403);
  expect(await foreign?.json()).toMatchObject({ error: { message: expect.stringContaining("other sites"), fields: {} } });
  expect((await ask({ origin: "http://[" }))?.status).toBe(400);
  expect((await ask({ origin: "null" }))?.status).toBe(403);
  for (const name of ["x-content-type-options", "x-frame-options", "content-security-policy", "referrer-policy"])
    expect(foreign?.headers.get(name)).toBeTruthy();
});
