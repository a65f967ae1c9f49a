import { createHmac } from "node:crypto";
import { readFileSync } from "node:fs";
import { gunzipSync } from "node:zlib";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { GET as takeWhole } from "@/app/api/workshops/[workshop]/whole/route";
import { devices, members } from "@/data/tables/people";
import { people } from "@/data/tables/workshop";
import { askDevice, cutDevice, invite, scheduleWorkshopDeletion, setPin, setRole, takeAccess } from "@/server/people/commands";
import { readAuditLog } from "@/server/workshops/people";
import { openDoor, Visitor } from "@/testing/auth";
import { type TestDatabase, testDatabase } from "@/testing/database";
import { sent } from "@/testing/headers";
import { storedBatch } from "@/testing/stored-batch";
import { assertOwnPerson } from "./authorize";
import { hashOf } from "./secrets";
import { resolvePrincipal, workshopsOfRequest } from "./session";

let test: TestDatabase;
let letters: string;
let workshopId: string;
let owner: { visitor: Visitor; personId: string };
const place = () => ({ workshopId, personId: owner.personId });
const PASSWORD = "tallow is not what I use";
let n = 0;
/** Each test's people have addresses of their own; the server is one for all. */
const mailOf = (name: string) => `${name}-${v7().slice(-6)}-${++n}@shed.example`.toLowerCase();

beforeAll(async () => {
  test = await testDatabase();
  process.env.DATABASE_URL = test.url;
  ({ letters } = openDoor());
});
afterAll(() => test.pool.end());

const value = <T>(outcome: { ok: true; value: T } | { ok: false; message: string }): T => {
  if (!outcome.ok) throw new Error(outcome.message);
  return outcome.value;
};
async function person(name: string): Promise<string> {
  const id = v7();
  await test.db.insert(people).values({ workshopId, id, name });
  return id;
}
/** Somebody in the workshop with an account and a role, signed in; commands are sent as by the owner again afterwards. */
async function comeIn(
  name: string,
  role: "owner" | "editor" | "helper" | "viewer",
  address = `192.0.2.${10 + (n % 200)}`,
  meanwhile?: (personId: string) => Promise<void>,
) {
  const personId = await person(name);
  const { link } = value(await invite(place(), { personId, role }));
  await meanwhile?.(personId);
  const visitor = new Visitor(address);
  const email = mailOf(name);
  const [, workshop, token] = /\/invite\/([^/]+)\/(.+)$/.exec(link) ?? [];
  const { status, body } = await visitor.ask("accept", { workshop, token, name, email, password: PASSWORD });
  expect(status).toBe(200);
  return { visitor, personId, email, codes: body.codes as string[], link: { workshop, token } };
}
beforeEach(async () => {
  workshopId = await test.workshop();
  // The first owner comes in as the one who makes the workshop does.
  const visitor = new Visitor(`198.51.100.${++n % 250}`);
  const personId = await person("Ilvo");
  const invitation = { workshopId, id: v7(), personId, role: "owner" as const, hash: hashOf("t".repeat(43)), until: "2999-01-01T00:00:00Z" };
  await test.db.insert((await import("@/data/tables/people")).invitations).values(invitation);
  await visitor.ask("accept", { workshop: workshopId, token: "t".repeat(43), name: "Ilvo", email: mailOf("ilvo"), password: PASSWORD });
  owner = { visitor, personId };
  sent.headers = () => owner.visitor.headers();
});

describe("coming in with an account", () => {
  it("by a link that opens once; who is not signed in, or in no workshop of that id, is nobody there", async () => {
    const { visitor, personId, link } = await comeIn("Maren", "editor");
    expect(await resolvePrincipal(visitor.headers(), workshopId)).toMatchObject({ role: "editor", personId });
    expect(await resolvePrincipal(visitor.headers(), await test.workshop())).toBe("stranger");
    expect(await resolvePrincipal(new Headers(), workshopId)).toBe("nobody");
    expect((await workshopsOfRequest(visitor.headers())).map((item) => item.id)).toEqual([workshopId]);
    expect(await workshopsOfRequest(new Headers())).toEqual([]);
    const again = await new Visitor().ask("accept", { ...link, name: "Thief", email: mailOf("thief"), password: PASSWORD });
    expect(again.status).toBe(404);
  });

  it("by a password of twelve signs or more, and says the same whether the address or the password is wrong", async () => {
    const { email } = await comeIn("Maren", "editor");
    const visitor = new Visitor("192.0.2.77");
    const wrong = await visitor.ask("sign-in", { email, password: "not this one at all" });
    const unknown = await visitor.ask("sign-in", { email: mailOf("nobody"), password: "not this one at all" });
    expect([wrong.status, unknown.status]).toEqual([401, 401]);
    expect(wrong.body).toEqual(unknown.body);
    expect(
      (await visitor.ask("accept", { workshop: workshopId, token: "x", name: "A", email: mailOf("a"), password: "short" })).body.error?.fields,
    ).toHaveProperty("password");
    expect((await visitor.ask("sign-in", { email: email.toUpperCase(), password: PASSWORD })).status).toBe(200);
    expect(await resolvePrincipal(visitor.headers(), workshopId)).toMatchObject({ role: "editor" });
    await visitor.ask("sign-out", {});
    expect(await resolvePrincipal(visitor.headers(), workshopId)).toBe("nobody");
  });

  it("is kept by a cookie that no script reads and no other site sends; its sign-in can be ended from another browser", async () => {
    const { visitor, email } = await comeIn("Maren", "editor");
    const other = new Visitor("192.0.2.90");
    const { answer } = await other.ask("sign-in", { email, password: PASSWORD });
    const cookie = answer.headers.getSetCookie().find((text) => text.includes("session_token")) ?? "";
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Lax/);
    const { auth } = await import("./auth");
    const sessions = await auth().api.listSessions({ headers: visitor.headers() });
    const theirs = sessions.find((session) => other.cookies.get("hearth.session_token")?.startsWith(encodeURIComponent(session.token).slice(0, 20)));
    expect((await visitor.ask("end-session", { id: theirs?.id })).status).toBe(200);
    expect(await resolvePrincipal(other.headers(), workshopId)).toBe("nobody");
    expect(await resolvePrincipal(visitor.headers(), workshopId)).toMatchObject({ role: "editor" });
    // A cookie that was changed on the way is nobody's.
    const forged = new Visitor();
    forged.cookies.set("hearth.session_token", `${visitor.cookies.get("hearth.session_token")?.slice(0, -6)}AAAA%3D`);
    expect(await resolvePrincipal(forged.headers(), workshopId)).toBe("nobody");
  });

  it("with a second factor where one was set up: by RFC 6238, worked out here apart from the library", async () => {
    const { visitor, email } = await comeIn("Maren", "editor");
    expect((await visitor.ask("begin-second-factor", { password: "wrong wrong wrong" })).status).toBe(401);
    const { body } = await visitor.ask("begin-second-factor", { password: PASSWORD });
    const secret = new URL(String(body.uri)).searchParams.get("secret") ?? "";
    // Kept, because half a minute may end between the first use and the second.
    const first = totp(secret);
    expect((await visitor.ask("second-factor", { code: first })).status).toBe(200);
    const other = new Visitor("192.0.2.91");
    expect((await other.ask("sign-in", { email, password: PASSWORD })).body).toMatchObject({ secondFactor: true });
    expect(await resolvePrincipal(other.headers(), workshopId)).toBe("nobody");
    expect((await other.ask("second-factor", { code: "000000" })).status).toBe(401);
    // The code that was used already opens nothing more (RFC 6238, 5.2); the next one does, once.
    const used = { status: 401, body: { error: { message: expect.stringContaining("used already") } } };
    expect(await other.ask("second-factor", { code: first })).toMatchObject(used);
    expect(await resolvePrincipal(other.headers(), workshopId)).toBe("nobody");
    const next = totp(secret, 1);
    await other.ask("sign-in", { email, password: PASSWORD });
    expect((await other.ask("second-factor", { code: next })).status).toBe(200);
    expect(await resolvePrincipal(other.headers(), workshopId)).toMatchObject({ role: "editor" });
    const third = new Visitor("192.0.2.95");
    await third.ask("sign-in", { email, password: PASSWORD });
    expect(await third.ask("second-factor", { code: next })).toMatchObject(used);
    expect(await resolvePrincipal(third.headers(), workshopId)).toBe("nobody");
  });

  it("is not kept out by the wrong passwords of others: not at an address that is known, and not with a printed code", async () => {
    const { email, codes } = await comeIn("Maren", "editor");
    const known = new Visitor("192.0.2.96");
    expect((await known.ask("sign-in", { email, password: PASSWORD })).status).toBe(200);
    const statuses: number[] = [];
    for (let n = 0; n < 9; n++) statuses.push((await new Visitor(`192.0.2.${140 + n}`).ask("sign-in", { email, password: "wrong wrong wrong" })).status);
    expect(statuses.at(-1)).toBe(429);
    expect((await new Visitor("192.0.2.160").ask("sign-in", { email, password: PASSWORD })).status).toBe(429);
    expect((await known.ask("sign-in", { email, password: PASSWORD })).status).toBe(200);
    // Guesses at the known address are counted too.
    const there: number[] = [];
    for (let n = 0; n < 9; n++) there.push((await known.ask("sign-in", { email, password: "wrong wrong wrong" })).status);
    expect(there.at(-1)).toBe(429);
    expect((await new Visitor("192.0.2.161").ask("recover", { email, code: codes[0], password: "another sentence of mine" })).status).toBe(200);
  });

  it("again after a lost password by a printed code, once, or by a letter; every other sign-in ends", async () => {
    const { visitor, email, codes } = await comeIn("Maren", "editor");
    expect(codes).toHaveLength(8);
    const fresh = "another sentence of mine";
    const out = new Visitor("192.0.2.92");
    expect((await out.ask("recover", { email, code: "AAAA-AAAA-AAAA-AAAA", password: fresh })).status).toBe(401);
    expect((await out.ask("recover", { email, code: codes[0]?.toLowerCase().replaceAll("-", " "), password: fresh })).status).toBe(200);
    expect(await resolvePrincipal(visitor.headers(), workshopId)).toBe("nobody");
    expect((await out.ask("recover", { email, code: codes[0], password: fresh })).status).toBe(401);
    expect((await out.ask("sign-in", { email, password: PASSWORD })).status).toBe(401);
    expect((await out.ask("sign-in", { email, password: fresh })).status).toBe(200);

    expect((await out.ask("forgot", { email: mailOf("nobody") })).body).toEqual((await out.ask("forgot", { email })).body);
    await vi.waitFor(() => expect(readFileSync(letters, "utf8")).toContain(email));
    const letter =
      readFileSync(letters, "utf8")
        .trim()
        .split("\n")
        .findLast((line) => line.includes(email)) ?? "";
    const token = /token=([\w-]+)/.exec(letter)?.[1];
    expect((await out.ask("new-password", { token, password: PASSWORD })).status).toBe(200);
    expect((await out.ask("new-password", { token, password: fresh })).status).toBe(400);
    expect((await out.ask("sign-in", { email, password: PASSWORD })).status).toBe(200);
  });

  it("is tried so often and no oftener, for known and unknown addresses alike", async () => {
    const { email } = await comeIn("Maren", "editor");
    for (const tried of [email, mailOf("nobody")]) {
      const statuses: number[] = [];
      for (let at = 0; at < 10; at++)
        statuses.push((await new Visitor(`203.0.113.${at}`).ask("sign-in", { email: tried, password: "wrong wrong wrong" })).status);
      expect(statuses).toEqual([...Array(8).fill(401), 429, 429]);
    }
    // Also the right one waits then.
    const { status, answer } = await new Visitor("203.0.113.99").ask("sign-in", { email, password: PASSWORD });
    expect([status, Number(answer.headers.get("retry-after")) > 60]).toEqual([429, true]);
  });
});

describe("a phone of the workshop", () => {
  const joined = async (role: "helper" | "editor" = "helper") => {
    const { code } = value(await askDevice(place(), { name: "phone on the shelf", role }));
    const phone = new Visitor(`192.0.2.${100 + (n++ % 100)}`);
    expect((await phone.ask("join", { code: code.toLowerCase().replace("-", " ") })).status).toBe(200);
    return { phone, code };
  };

  it("comes in by a code, once and in time, and is nobody until somebody says a PIN", async () => {
    const { phone, code } = await joined();
    expect((await new Visitor().ask("join", { code })).status).toBe(401);
    expect(await resolvePrincipal(phone.headers(), workshopId)).toBe("nobody");
    const sida = await person("Sida");
    expect(await setPin(place(), { personId: sida, pin: "1111" })).toMatchObject({ ok: false, fields: { pin: [expect.any(String)] } });
    value(await setPin(place(), { personId: sida, pin: "4821" }));
    expect((await phone.ask("person", { personId: sida, pin: "4822" })).status).toBe(401);
    expect((await phone.ask("person", { personId: sida, pin: "4821" })).status).toBe(200);
    expect(await resolvePrincipal(phone.headers(), workshopId)).toMatchObject({ role: "helper", personId: sida, through: "phone on the shelf" });
    // The owner on the same phone may do no more than the phone may.
    value(await setPin(place(), { personId: owner.personId, pin: "7350" }));
    expect((await phone.ask("person", { personId: owner.personId, pin: "7350" })).status).toBe(200);
    expect(await resolvePrincipal(phone.headers(), workshopId)).toMatchObject({ role: "helper", personId: owner.personId });
    expect(await resolvePrincipal(phone.headers(), await test.workshop())).toBe("stranger");
    const late = value(await askDevice(place(), { name: "late", role: "helper" }));
    await test.db
      .update(devices)
      .set({ codeUntil: "2020-01-01T00:00:00Z" })
      .where(and(eq(devices.workshopId, workshopId), eq(devices.name, "late")));
    expect((await new Visitor("192.0.2.250").ask("join", { code: late.code })).status).toBe(401);
  });

  it("takes five tries of a PIN, then none, also of the right one", async () => {
    const { phone } = await joined();
    const sida = await person("Sida");
    value(await setPin(place(), { personId: sida, pin: "4821" }));
    const statuses: number[] = [];
    for (let at = 0; at < 6; at++) statuses.push((await phone.ask("person", { personId: sida, pin: `900${at}` })).status);
    expect(statuses).toEqual([401, 401, 401, 401, 401, 429]);
    expect((await phone.ask("person", { personId: sida, pin: "4821" })).status).toBe(429);
  });

  it("counts the tries of a PIN over all devices, until the owner gives a new one", async () => {
    const sida = await person("Sida");
    value(await setPin(place(), { personId: sida, pin: "4821" }));
    let wrong = 0;
    for (let device = 0; device < 5; device++) {
      const { phone } = await joined();
      for (let at = 0; at < 5; at++) if ((await phone.ask("person", { personId: sida, pin: `90${device}${at}` })).status === 401) wrong += 1;
    }
    expect(wrong).toBe(20);
    const { phone } = await joined();
    expect(await phone.ask("person", { personId: sida, pin: "4821" })).toMatchObject({
      status: 429,
      body: { error: { message: expect.stringContaining("hours") } },
    });
    value(await setPin(place(), { personId: sida, pin: "6204" }));
    expect((await phone.ask("person", { personId: sida, pin: "6204" })).status).toBe(200);
  });

  it("is out once it leaves: a copy of its cookie opens nothing", async () => {
    const { phone } = await joined();
    const sida = await person("Sida");
    value(await setPin(place(), { personId: sida, pin: "4821" }));
    await phone.ask("person", { personId: sida, pin: "4821" });
    const copy = new Visitor();
    for (const [name, text] of phone.cookies) copy.cookies.set(name, text);
    expect(await resolvePrincipal(copy.headers(), workshopId)).toMatchObject({ personId: sida });
    expect((await phone.ask("leave", {})).status).toBe(200);
    expect(await resolvePrincipal(copy.headers(), workshopId)).toBe("nobody");
  });

  it("logs entries in the name of who is at it, or was at it when they happened", async () => {
    const { phone } = await joined();
    const [sida, maren] = [await person("Sida"), await person("Maren")];
    for (const personId of [sida, maren]) value(await setPin(place(), { personId, pin: "4821" }));
    await phone.ask("person", { personId: sida, pin: "4821" });
    const who = await resolvePrincipal(phone.headers(), workshopId);
    if (typeof who === "string") throw new Error(who);
    const [happenedAt, before] = [new Date().toISOString(), new Date(Date.now() - 3_600_000).toISOString()];
    const odd = (personId: string | null, at = happenedAt) => assertOwnPerson(workshopId, who, { personId, happenedAt: at });
    expect(await odd(sida)).toBeNull();
    for (const personId of [owner.personId, maren]) expect(await odd(personId)).toMatch(/under the person who is signed in/);
    // What waited here from Sida is still taken while Maren is at it; what Sida could not have entered here is not.
    await phone.ask("person", { personId: maren, pin: "4821" });
    const next = await resolvePrincipal(phone.headers(), workshopId);
    if (typeof next === "string") throw new Error(next);
    expect(await assertOwnPerson(workshopId, next, { personId: sida, happenedAt })).toBeNull();
    expect(await assertOwnPerson(workshopId, next, { personId: sida, happenedAt: before })).toMatch(/under the person/);
  });

  it("is let in or not where its cookie is none of ours, and never fails", async () => {
    for (const cookie of ["%", "%E0%A4%A", `${"-".repeat(36)}.${"A".repeat(43)}`, `${workshopId}.x`, ""]) {
      const odd = new Visitor();
      odd.cookies.set("hearth_device", cookie);
      expect(await resolvePrincipal(odd.headers(), workshopId), cookie).toBe("nobody");
    }
  });

  it("is cut off at once, and what is kept of it opens nothing", async () => {
    const { phone } = await joined();
    const sida = await person("Sida");
    value(await setPin(place(), { personId: sida, pin: "4821" }));
    await phone.ask("person", { personId: sida, pin: "4821" });
    const [device] = await test.db.select().from(devices).where(eq(devices.workshopId, workshopId));
    value(await cutDevice(place(), { deviceId: device?.id }));
    expect(await resolvePrincipal(phone.headers(), workshopId)).toBe("nobody");
    expect((await phone.ask("person", { personId: sida, pin: "4821" })).status).toBe(401);
    const kept = JSON.stringify(await test.db.select().from(devices).where(eq(devices.workshopId, workshopId)));
    expect(kept).not.toContain(phone.cookies.get("hearth_device")?.split(".")[1]);
  });
});

describe("who works here", () => {
  it("is decided by an owner alone, and one owner always stays", async () => {
    const editor = await comeIn("Maren", "editor");
    sent.headers = () => editor.visitor.headers();
    const refusal = { ok: false, message: expect.stringContaining("do not have access") };
    expect(await setRole(place(), { personId: editor.personId, role: "owner" })).toMatchObject(refusal);
    expect(await invite(place(), { personId: editor.personId, role: "owner" })).toMatchObject(refusal);
    expect(await cutDevice(place(), { deviceId: v7() })).toMatchObject(refusal);
    sent.headers = () => owner.visitor.headers();
    const last = { ok: false, message: expect.stringContaining("last owner") };
    expect(await setRole(place(), { personId: owner.personId, role: "editor" })).toMatchObject(last);
    expect(await takeAccess(place(), { personId: owner.personId, forget: true })).toMatchObject(last);
    value(await setRole(place(), { personId: editor.personId, role: "owner" }));
    expect(await setRole(place(), { personId: owner.personId, role: "editor" })).toMatchObject({ ok: true });
  });

  it("comes in as it may be by now, not as when the link was made", async () => {
    const { visitor } = await comeIn("Tamsin", "editor", undefined, async (personId) => void value(await setRole(place(), { personId, role: "viewer" })));
    expect(await resolvePrincipal(visitor.headers(), workshopId)).toMatchObject({ role: "viewer" });
  });

  it("loses all access when it leaves, and its name where that is wanted", async () => {
    const helper = await comeIn("Maren", "helper");
    value(await takeAccess(place(), { personId: helper.personId, forget: true }));
    expect(await resolvePrincipal(helper.visitor.headers(), workshopId)).toBe("stranger");
    expect(
      await test.db
        .select()
        .from(members)
        .where(and(eq(members.workshopId, workshopId), eq(members.personId, helper.personId))),
    ).toEqual([]);
    expect((await test.db.select({ name: people.name }).from(people).where(eq(people.id, helper.personId)))[0]?.name).toBe("a former helper");
  });
});

describe("a whole workshop", () => {
  it("is taken along with all rows and no secret, and let go only by its name, with time to think", async () => {
    await storedBatch(test, workshopId);
    const sida = await person("Sida");
    value(await setPin(place(), { personId: sida, pin: "4821" }));
    const ask = () =>
      takeWhole(new Request("http://127.0.0.1:4380/", { headers: owner.visitor.headers() }), { params: Promise.resolve({ workshop: workshopId }) });
    const lines = gunzipSync(Buffer.from(await (await ask()).arrayBuffer()))
      .toString("utf8")
      .trim()
      .split("\n")
      .map((line) => JSON.parse(line));
    expect(lines[0]).toMatchObject({ format: "hearth-jar-workshop", version: 2, workshop: workshopId });
    const rows = lines.slice(1, -1) as { table: string; row: Record<string, unknown> }[];
    for (const table of ["workshop", "person", "member", "wax", "fragrance", "formula_version", "batch", "batch_event", "audit_log"]) {
      const { rows: counted } = await test.owner.query<{ n: number }>(
        `select count(*)::int as n from "${table}" where ${table === "workshop" ? "id" : "workshop_id"} = $1`,
        [workshopId],
      );
      expect(
        rows.filter((row) => row.table === table),
        table,
      ).toHaveLength(counted[0]?.n ?? -1);
    }
    expect(rows.every((row) => (row.row.workshop_id ?? row.row.id) === workshopId)).toBe(true);
    expect(rows.filter((row) => "pin_hash" in row.row || (row.table !== "audit_log" && "hash" in row.row))).toEqual([]);
    expect(lines.at(-1)).toEqual({ end: true, rows: rows.length });

    expect(await scheduleWorkshopDeletion(place(), { go: true, name: "another" })).toMatchObject({ ok: false, fields: { name: [expect.any(String)] } });
    const [workshop] = rows.filter((row) => row.table === "workshop");
    const { leavesAt } = value(await scheduleWorkshopDeletion(place(), { go: true, name: String(workshop?.row.name).toUpperCase() }));
    expect(Math.round((Date.parse(leavesAt ?? "") - Date.now()) / 86_400_000)).toBe(30);
    expect(value(await scheduleWorkshopDeletion(place(), { go: false, name: "" })).leavesAt).toBeNull();
  });
});

describe("the audit log", () => {
  it("says who changed what through what, keeps no secret, and shows where it was tampered with", async () => {
    const helper = await comeIn("Maren", "helper");
    value(await setRole(place(), { personId: helper.personId, role: "editor" }));
    value(await setPin(place(), { personId: helper.personId, pin: "4821" }));
    const db = test.as(workshopId);
    const { rows, gaps } = await readAuditLog(db, workshopId, null);
    expect(gaps).toEqual([]);
    expect(rows.find((row) => row.table === "member" && row.changed.role?.[1] === "editor")).toMatchObject({
      by: "Ilvo",
      through: "an account",
      what: "update",
      changed: { role: ["helper", "editor"] },
    });
    expect(rows.find((row) => row.changed.pin_hash)?.changed.pin_hash).toEqual(["…", "…"]);
    expect(JSON.stringify(rows)).not.toContain(hashOf("t".repeat(43)));
    // Not by the program's own hand.
    for (const attempt of [`update audit_log set what = 'x' where workshop_id = '${workshopId}'`, `delete from audit_log where workshop_id = '${workshopId}'`])
      await expect(test.program.query(attempt)).rejects.toMatchObject({ code: "42501" });
    // Nor unseen by somebody else's.
    const middle = rows[1]?.seq ?? 0;
    await test.owner.query("alter table audit_log disable trigger audit_append_only");
    try {
      await test.owner.query("update audit_log set through = 'another' where workshop_id = $1 and seq = $2", [workshopId, middle]);
      expect((await readAuditLog(db, workshopId, null)).gaps).toEqual([middle]);
      await test.owner.query("delete from audit_log where workshop_id = $1 and seq = $2", [workshopId, middle]);
      expect((await readAuditLog(db, workshopId, null)).gaps).toEqual([middle + 1]);
    } finally {
      await test.owner.query("alter table audit_log enable trigger audit_append_only");
    }
  });
});

/** The six digits of an authenticator at this moment: RFC 6238 over RFC 4226, SHA-1, 30 s. */
function totp(secret: string, steps = 0): string {
  const bits = [...secret].map((sign) => "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567".indexOf(sign).toString(2).padStart(5, "0")).join("");
  const key = Buffer.from((bits.match(/.{8}/g) ?? []).map((byte) => Number.parseInt(byte, 2)));
  const counter = Buffer.alloc(8);
  counter.writeBigUInt64BE(BigInt(Math.floor(Date.now() / 30_000) + steps));
  const mac = createHmac("sha1", key).update(counter).digest();
  const at = (mac[19] ?? 0) & 15;
  return String((mac.readUInt32BE(at) & 0x7fffffff) % 1_000_000).padStart(6, "0");
}
