import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { v7 } from "uuid";
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { invitations, members } from "@/data/tables/people";
import { people } from "@/data/tables/workshop";
import { openDoor, Visitor } from "@/testing/auth";
import { type TestDatabase, testDatabase } from "@/testing/database";
import { jar, sent } from "@/testing/headers";
import { storedBatch } from "@/testing/stored-batch";
import { hashOf } from "./secrets";

// What is kept for the length of a request is kept for none here.
vi.mock("react", async (whole) => ({ ...(await whole<object>()), cache: (act: unknown) => act }));

const ROOT = new URL("../../", import.meta.url).pathname;
const VISITORS = ["nobody", "stranger", "helper", "viewer"] as const;
type Visiting = (typeof VISITORS)[number];

let test: TestDatabase;
let mine: string;
let stored: Awaited<ReturnType<typeof storedBatch>>;
let who: Record<Visiting | "owner", Visitor>;

/** Somebody with an account and a role in a workshop. */
async function member(workshopId: string, role: "owner" | "helper" | "viewer", n: number): Promise<Visitor> {
  const personId = v7();
  const token = v7();
  await test.db.insert(people).values({ workshopId, id: personId, name: `${role} ${n}` });
  await test.db.insert(invitations).values({ workshopId, id: v7(), personId, role, hash: hashOf(token), until: "2999-01-01T00:00:00Z" });
  const visitor = new Visitor(`203.0.113.${100 + n}`);
  const { status } = await visitor.ask("accept", {
    workshop: workshopId,
    token,
    name: role,
    email: `${role}-${v7()}@shed.example`,
    password: "a sentence for the walls",
  });
  expect(status).toBe(200);
  return visitor;
}

beforeAll(async () => {
  test = await testDatabase();
  process.env.DATABASE_URL = test.url;
  openDoor();
  mine = await test.workshop();
  stored = await storedBatch(test, mine);
  const theirs = await test.workshop();
  who = {
    nobody: new Visitor("203.0.113.99"),
    stranger: await member(theirs, "owner", 1),
    helper: await member(mine, "helper", 2),
    viewer: await member(mine, "viewer", 3),
    owner: await member(mine, "owner", 4),
  };
  expect(await test.db.select().from(members)).not.toEqual([]);
}, 60_000);
afterAll(() => test.pool.end());
beforeEach(() => jar.clear());

/** Everything that is kept of a workshop, as one number. */
async function stateOf(workshopId: string): Promise<string> {
  const { rows } = await test.owner.query<{ name: string }>(
    "select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'workshop_id' order by 1",
  );
  const sums = rows.map(
    ({ name }) => `(select '${name}' as name, md5(coalesce(string_agg(t::text, '|' order by t::text), '')) as sum from "${name}" t where workshop_id = $1)`,
  );
  const { rows: all } = await test.owner.query<{ all: string }>(
    `select string_agg(name || sum, ',' order by name) as all from (${sums.join(" union all ")}) s`,
    [workshopId],
  );
  return all[0]?.all ?? "";
}

/** Every file of a kind below a folder, by its path from there. */
const filesIn = (folder: string, name: RegExp): string[] =>
  readdirSync(join(ROOT, folder), { recursive: true, encoding: "utf8" })
    .filter((file) => name.test(file) && !file.includes("node_modules"))
    .sort();

/** Routes that belong to no workshop, and what they are for. */
const OPEN_ROUTES: Record<string, string> = {
  "[...rest]": "what is not there",
  "calendar/[file]": "a calendar program asks with a secret address, and no cookie",
  clock: "the time",
  health: "whether the program is well",
  metrics: "figures without a name, to this machine or who has the token",
  auth: "whether this browser is in",
  "auth/[command]": "signing in itself; its own tests are beside it",
  trust: "the certificate of the authority, which is no secret",
  "v1/schemas/burn-record.json": "a published format",
  "v1/schemas/batch-record.json": "a published format",
  v1: "what can be calculated",
  workshops: "a workshop is imported by whoever has an account; its own tests are in import-workshop.test.ts",
};
/** Which roles may pass, of those that are in the workshop; "none" where only editors and owners do. */
const ROUTES: Record<string, readonly Visiting[]> = {
  "workshops/[workshop]/batches GET": ["helper", "viewer"],
  "workshops/[workshop]/batches/[batch]/events POST": ["helper"],
  "workshops/[workshop]/batches/[batch]/log GET": ["helper", "viewer"],
  "workshops/[workshop]/batches/[batch]/record GET": ["viewer"],
  "workshops/[workshop]/batches/[batch]/sheet GET": ["helper", "viewer"],
  "workshops/[workshop]/buyers GET": ["viewer"],
  "workshops/[workshop]/catalogue GET": ["viewer"],
  "workshops/[workshop]/days/[day]/sheet GET": ["viewer"],
  "workshops/[workshop]/entries GET": ["helper", "viewer"],
  "workshops/[workshop]/formulas/[formula] GET": ["viewer"],
  "workshops/[workshop]/import POST": [],
  "workshops/[workshop]/instruments/[kind] GET": ["helper", "viewer"],
  "workshops/[workshop]/instruments/[kind] POST": ["helper"],
  "workshops/[workshop]/labels GET": ["viewer"],
  "workshops/[workshop]/live GET": ["helper", "viewer"],
  "workshops/[workshop]/notes POST": [],
  "workshops/[workshop]/orders/[order]/events POST": [],
  "workshops/[workshop]/orders/[order]/log GET": ["viewer"],
  "workshops/[workshop]/pictures/[picture] GET": ["helper", "viewer"],
  "workshops/[workshop]/recall GET": ["viewer"],
  "workshops/[workshop]/sales GET": ["viewer"],
  "workshops/[workshop]/year GET": ["viewer"],
  "workshops/[workshop]/shelf/[kind] GET": ["viewer"],
  "workshops/[workshop]/trials/[trial]/events POST": ["helper"],
  "workshops/[workshop]/trials/[trial]/log GET": ["helper", "viewer"],
  "workshops/[workshop]/trials/[trial]/record GET": ["helper", "viewer"],
  "workshops/[workshop]/trials/[trial]/sheet GET": ["helper", "viewer"],
  "workshops/[workshop]/whole GET": [],
};
const METHODS = ["GET", "POST", "PUT", "PATCH", "DELETE"] as const;

describe("every route", () => {
  it("is behind the sign-in: nobody and strangers get nothing, helpers and viewers what is theirs, and nothing is changed", async () => {
    const before = await stateOf(mine);
    const named = { workshop: mine, batch: stored.batch, formula: stored.formula, trial: v7(), order: v7(), picture: v7(), day: "2026-03-14", kind: "wax" };
    const found: string[] = [];
    for (const file of filesIn("app/api", /route\.ts$/)) {
      const path = file.replace(/\/?route\.ts$/, "");
      const route = (await import(join(ROOT, "app/api", file))) as Partial<
        Record<(typeof METHODS)[number], (request: Request, at: object) => Promise<Response>>
      >;
      if (path in OPEN_ROUTES) continue;
      for (const method of METHODS) {
        const run = route[method];
        if (!run) continue;
        const key = `${path} ${method}`;
        found.push(key);
        // Whoever may, has to say what; who may not, gets no answer to what was said.
        for (const visitor of VISITORS) {
          const params = { ...named, ...(path.includes("instruments") ? { kind: "probe" } : {}) };
          const address = `http://127.0.0.1:4380/api/${path.replaceAll(/\[(\w+)\]/g, (_, name: keyof typeof params) => params[name])}?product=${stored.vessel}`;
          const stop = new AbortController();
          const body = method === "GET" ? {} : { body: JSON.stringify(path.includes("notes") ? noteOf() : {}) };
          const answer = await run(new Request(address, { method, headers: who[visitor].headers(), signal: stop.signal, ...body }), {
            params: Promise.resolve(params),
          });
          stop.abort();
          const may = path.startsWith("v1/") ? visitor !== "nobody" : ROUTES[key]?.includes(visitor as Visiting);
          const refused = { nobody: [401], stranger: [404], helper: [403], viewer: [403] }[visitor];
          if (may) expect([401, 403], `${key} as ${visitor}`).not.toContain(answer.status);
          else expect(refused, `${key} as ${visitor}: ${answer.status}`).toContain(answer.status);
          if (answer.status >= 400 || visitor === "nobody" || visitor === "stranger") await answer.body?.cancel();
        }
      }
    }
    expect(found.filter((key) => !key.startsWith("v1/")).sort()).toEqual(Object.keys(ROUTES).sort());
    expect(await stateOf(mine)).toBe(before);
  }, 60_000);

  it("is found by the files: one that nothing was said of fails the test before", () => {
    expect(filesIn("app/api", /route\.ts$/).length).toBeGreaterThan(35);
  });
});

const noteOf = () => ({ id: v7(), kind: "formula", of: stored.formula, text: "seen through the wall", personId: null, pictures: [] });

/** Commands that need no role: they say what this browser shows, or make a workshop of one's own. */
const OPEN_COMMANDS: Record<string, string> = {
  chooseWorkshop: "a cookie of this browser: what it opens first",
  choosePerson: "a cookie of this browser, on a machine that needs no sign-in",
  chooseLight: "a cookie of this browser",
};
/** What a command is sent that first has to say what it is about. */
const ABOUT: Record<string, () => object> = {
  archive: () => ({ kind: "formula", id: stored.formula, away: true }),
  remove: () => ({ kind: "formula", id: stored.formula }),
  duplicate: () => ({ kind: "formula", id: stored.formula, freshId: v7() }),
  restore: () => ({ kind: "formula", id: stored.formula }),
  saveOnShelf: () => ({ id: stored.wax, expectedVersion: 1, kind: "wax", values: { name: "through the wall", family: "soy" } }),
  makeWorkshop: () => ({ name: "Through the wall", massUnit: "g", temperatureUnit: "C", timeZone: "UTC", person: "X" }),
  changeWorkshop: () => ({ id: mine, name: "Through the wall", massUnit: "g", temperatureUnit: "C", timeZone: "UTC", expectedVersion: 1 }),
};
/** Commands that a helper or a viewer may send; what is wrong with what was sent is then told. */
const THEIRS: Record<string, readonly Visiting[]> = {
  undoBatch: ["helper"],
  findThings: ["helper", "viewer"],
  beginTrial: ["helper"],
  pourRung: ["helper"],
  takeWick: ["helper"],
};

describe("every command", () => {
  it("is behind the sign-in: nobody, strangers, helpers and viewers change nothing that is not theirs", async () => {
    const before = await stateOf(mine);
    const commandsIn = (folder: string) => filesIn(folder, /\.ts$/).filter((file) => readFileSync(join(ROOT, folder, file), "utf8").startsWith('"use server"'));
    expect(commandsIn("features"), "commands have their home in server").toEqual([]);
    const files = commandsIn("server");
    expect(files.length).toBeGreaterThan(12);
    const told: string[] = [];
    let commands = 0;
    for (const file of files) {
      const module = (await import(join(ROOT, "server", file))) as Record<string, unknown>;
      for (const [name, act] of Object.entries(module)) {
        if (typeof act !== "function" || name in OPEN_COMMANDS) continue;
        commands += 1;
        for (const visitor of VISITORS) {
          sent.headers = () => who[visitor].headers();
          const input = ABOUT[name]?.() ?? {};
          const outcome = (await (act.length < 2 ? act(input) : act({ workshopId: mine, personId: stored.person }, input))) as {
            ok: boolean;
            message?: string;
          };
          // A workshop of one's own may be made by whoever has an account.
          if (name === "makeWorkshop" && visitor !== "nobody") continue;
          const refused = { nobody: /Sign in first|Sign in with/, stranger: /no such workshop/, helper: /do not have access/, viewer: /do not have access/ }[
            visitor
          ];
          const may = THEIRS[name]?.includes(visitor) ?? false;
          if (outcome.ok && !may) told.push(`${name} as ${visitor}: done`);
          else if (may ? refused.test(outcome.message ?? "") : !refused.test(outcome.message ?? "")) told.push(`${name} as ${visitor}: ${outcome.message}`);
        }
      }
    }
    expect(told).toEqual([]);
    expect(commands).toBeGreaterThan(45);
    expect(await stateOf(mine)).toBe(before);
  }, 60_000);
});

describe("every page", () => {
  it("is shown to whom it is for, and leads the others away before anything is read", async () => {
    const { requestContext: here } = await import("@/server/http/context");
    const pages = filesIn("app/w/[workshop]", /page\.tsx$/).map((file) => `/${file.replace(/\/?page\.tsx$/, "")}`.replaceAll(/\[\w+\]/g, stored.batch));
    expect(pages.length).toBeGreaterThan(40);
    // No page asks for its workshop by any other way.
    for (const file of filesIn("app/w/[workshop]", /page\.tsx$/)) {
      const text = readFileSync(join(ROOT, "app/w/[workshop]", file), "utf8");
      expect(/requestContext\(\)|batchProps\(/.test(text) || !text.includes("@/server"), file).toBe(true);
      expect(/tenantDatabase|@\/data\/client/.test(text), file).toBe(false);
    }
    const AT_HAND = /^\/(bench|rack|inspect|burn|words)(\/|$)/;
    const OWNERS = /^\/people(\/|$)/;
    for (const page of pages)
      for (const visitor of [...VISITORS, "owner"] as const) {
        sent.headers = () => {
          const headers = who[visitor].headers();
          headers.set("x-hearth-path", `/w/${mine}${page === "/" ? "" : page}`);
          return headers;
        };
        const shown = await here().then(
          (at) => at.workshop.id,
          (error: { digest?: string }) => error.digest ?? String(error),
        );
        const may = visitor === "owner" || (visitor === "helper" && AT_HAND.test(page)) || (visitor === "viewer" && !OWNERS.test(page));
        if (may) expect(shown, `${page} as ${visitor}`).toBe(mine);
        else
          expect(shown, `${page} as ${visitor}`).toMatch(
            {
              nobody: /REDIRECT;.*\/sign-in\?to=/,
              stranger: /REDIRECT;.*\/workshops;/,
              helper: /REDIRECT;.*\/bench/,
              viewer: /REDIRECT;.*\/bench/,
              owner: /never/,
            }[visitor],
          );
      }
  }, 60_000);
});
