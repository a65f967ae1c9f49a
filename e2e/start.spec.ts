import { type ChildProcess, spawn } from "node:child_process";
import { existsSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { containerLines } from "../tools/container";
import { freePort, isAlive, passingHome } from "../tools/processes";
import { listens, PROGRAM } from "./support";

/** Runs ./hearth as somebody at a shell would, and gathers what it says. */
function hearth(args: string[], env: Record<string, string>) {
  const { HEARTH_CLOCK_FILE: _clock, DATABASE_URL: _url, ...rest } = process.env;
  const child: ChildProcess = spawn(join(PROGRAM, "hearth"), args, { cwd: PROGRAM, env: { ...rest, ...env } });
  let said = "";
  child.stdout?.on("data", (data) => (said += data));
  child.stderr?.on("data", (data) => (said += data));
  const ended = new Promise<number>((resolve) => child.once("exit", (code) => resolve(code ?? 1)));
  return {
    child,
    said: () => said,
    ended,
    address: async () => {
      await expect.poll(() => said, { timeout: 180_000 }).toMatch(/Hearth Jar is at http:\/\/127\.0\.0\.1:\d+/);
      return /http:\/\/127\.0\.0\.1:\d+/.exec(said)?.[0] ?? "";
    },
  };
}

const homes: string[] = [];
const home = () => {
  const made = passingHome("start");
  homes.push(made);
  return made;
};
test.afterAll(() => {
  for (const home of homes) rmSync(home, { recursive: true, force: true });
});

test("it refuses other addresses and odd ports, and says why", async () => {
  const open = hearth(["demo"], { HEARTH_HOME: home(), HOST: "0.0.0.0" });
  expect(await open.ended).toBe(1);
  expect(open.said()).toMatch(/will not listen on 0\.0\.0\.0 because of HOST: .* with a sign-in/);
  const name = hearth(["start", "--listen", "shed.example"], { HEARTH_HOME: home() });
  expect(await name.ended).toBe(1);
  expect(name.said()).toMatch(/--listen takes an address of this machine/);
  const port = hearth(["demo"], { HEARTH_HOME: home(), PORT: "eighty" });
  expect(await port.ended).toBe(1);
  expect(port.said()).toMatch(/PORT is “eighty”/);
  const flag = hearth(["demo", "--frehs"], { HEARTH_HOME: home() });
  expect(await flag.ended).toBe(1);
  expect(flag.said()).toMatch(/--frehs is not an option of/);
});

test("two run at once; a taken port moves on; Ctrl-C leaves nothing behind and loses nothing; --fresh starts anew", async () => {
  const [first, second] = [home(), home()];
  const PORT = String(await freePort());
  const item = hearth(["demo"], { HEARTH_HOME: first, PORT });
  const address = await item.address();
  expect(address).toBe(`http://127.0.0.1:${PORT}`);
  expect(statSync(join(first, "database-password")).mode & 0o777).toBe(0o600);

  const same = hearth(["demo"], { HEARTH_HOME: first });
  expect(await same.ended).toBe(1);
  expect(same.said()).toContain(`already running on this data (${first}) at ${address}`);

  const two = hearth(["demo"], { HEARTH_HOME: second, PORT });
  expect(await two.address()).not.toBe(address);
  expect(two.said()).toContain(`Port ${PORT} is taken; using`);

  // Something is written, then both are stopped as Ctrl-C does.
  const workshop = "0190c0de-0000-7000-8000-000000000001";
  const batch = "0190c0de-0008-7000-8000-000000000005";
  const note = {
    id: "0190c0de-ffff-7000-8000-000000000001",
    kind: "note",
    happenedAt: new Date().toISOString(),
    personId: null,
    payload: { text: "kept over the stop" },
  };
  const path = `/api/workshops/${workshop}/batches/${batch}`;
  const sent = await fetch(`${address}${path}/events`, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(note) });
  expect(sent.status).toBe(200);
  const { web } = JSON.parse(readFileSync(join(first, "running.json"), "utf8")) as { web: number };
  const postgres = Number(readFileSync(join(first, "postgres/postmaster.pid"), "utf8").split("\n")[0]);
  for (const started of [item, two]) started.child.kill("SIGINT");
  expect(await item.ended).toBe(0);
  expect(await two.ended).toBe(0);
  for (const pid of [web, postgres]) expect(isAlive(pid)).toBe(false);
  expect(existsSync(join(first, "running.json"))).toBe(false);

  const again = hearth(["demo"], { HEARTH_HOME: first, PORT });
  expect(await (await fetch(`${await again.address()}${path}/record`)).text()).toContain("kept over the stop");
  again.child.kill("SIGTERM");
  expect(await again.ended).toBe(0);

  const fresh = hearth(["demo", "--fresh"], { HEARTH_HOME: first, PORT });
  expect(await (await fetch(`${await fresh.address()}${path}/record`)).text()).not.toContain("kept over the stop");
  fresh.child.kill("SIGINT");
  expect(await fresh.ended).toBe(0);
});

test("what is torn, wrong or killed ends in running, or in one plain sentence with nothing left running", async () => {
  const PORT = String(await freePort());
  const folder = home();
  // A state file that a power cut tore.
  writeFileSync(join(folder, "running.json"), '{"pid":');
  const item = hearth(["start"], { HEARTH_HOME: folder, PORT });
  const address = await item.address();

  // A web server that dies is started again, at the same address.
  const running = () => JSON.parse(readFileSync(join(folder, "running.json"), "utf8")) as { web: number };
  const { web } = running();
  process.kill(web, "SIGKILL");
  await expect.poll(() => running().web).not.toBe(web);
  await expect.poll(async () => (await fetch(`${address}/api/health`).catch(() => null))?.status).toBe(200);

  // Where the program itself is killed, neither server stays behind.
  const postgres = Number(readFileSync(join(folder, "postgres/postmaster.pid"), "utf8").split("\n")[0]);
  const last = running().web;
  item.child.kill("SIGKILL");
  for (const pid of [last, postgres]) await expect.poll(() => isAlive(pid)).toBe(false);

  // It comes up again where it was, without being asked to: what waits in a browser waits for that address.
  const again = hearth(["start"], { HEARTH_HOME: folder });
  expect(await again.address()).toBe(address);
  again.child.kill("SIGTERM");
  expect(await again.ended).toBe(0);

  const password = readFileSync(join(folder, "database-password"), "utf8");
  writeFileSync(join(folder, "database-password"), "of another database");
  const wrong = hearth(["start"], { HEARTH_HOME: folder });
  expect(await wrong.ended).toBe(1);
  expect(wrong.said()).toMatch(/^The password in .* does not open the database in .*\. Put the right file back/m);
  expect(existsSync(join(folder, "running.json"))).toBe(false);
  expect(existsSync(join(folder, "postgres/postmaster.pid"))).toBe(false);
  writeFileSync(join(folder, "database-password"), password);

  const file = join(home(), "a-file");
  writeFileSync(file, "");
  const blocked = hearth(["start"], { HEARTH_HOME: join(file, "home") });
  expect(await blocked.ended).toBe(1);
  expect(blocked.said()).toMatch(/The data directory .* cannot be used: there is a file of that name/);
});

test("the workshop's time runs on in a page long open, and a device whose clock is wrong is told so", async ({ browser }) => {
  const shed = hearth(["demo"], { HEARTH_HOME: home(), PORT: String(await freePort()) });
  const address = await shed.address();
  // Left open for three hours while the server's time cannot be asked for.
  const long = await browser.newPage();
  await long.clock.install();
  await long.route("**/api/clock", (route) => route.abort());
  await long.goto(`${address}/rack`);
  await listens(long);
  const hours = async () => Number(/in (\d+) h/.exec(await long.locator("main").innerText())?.[1]);
  const before = await hours();
  expect(before).toBeGreaterThan(3);
  await long.clock.fastForward("03:00:00");
  await expect.poll(hours).toBe(before - 3);

  // A device three hours fast: it is told, and what it enters stands at the workshop's time.
  const fast = await browser.newPage();
  await fast.clock.install({ time: Date.now() + 3 * 3_600_000 });
  await fast.goto(`${address}/bench/0190c0de-0008-7000-8000-000000000005`);
  // Its clock starts when the page does: a slow machine takes a while until then.
  await expect(fast.getByText(/This device's clock is (3 h|2 h 5\d min) fast/)).toBeVisible();
  await fast.getByLabel("Note").fill("by a fast clock");
  await fast.getByRole("button", { name: "Add the note" }).click();
  await expect(fast.getByText("“by a fast clock”")).toBeVisible();
  const path = `${address}/api/workshops/0190c0de-0000-7000-8000-000000000001/batches/0190c0de-0008-7000-8000-000000000005/record`;
  const noted = async () => (await (await fetch(path)).json()).events.find((event: { payload: { text?: string } }) => event.payload.text === "by a fast clock");
  await expect.poll(noted).toBeTruthy();
  const entry = await noted();
  expect(Math.abs(Date.parse(entry.happenedAt) - Date.now())).toBeLessThan(60_000);
  expect(Date.parse(entry.deviceAt) - Date.parse(entry.happenedAt)).toBeGreaterThan(2.9 * 3_600_000);

  // Its clock is set while the page is open: the workshop is asked anew; where it cannot be, time goes on from before, and it says so.
  const noteAt = async (text: string) => {
    await fast.getByLabel("Note").fill(text);
    await fast.getByRole("button", { name: "Add the note" }).click();
    await expect(fast.getByText(`“${text}”`)).toBeVisible();
  };
  const happened = async (text: string): Promise<number> => {
    const found = async () => (await (await fetch(path)).json()).events.find((event: { payload: { text?: string } }) => event.payload.text === text);
    await expect.poll(found).toBeTruthy();
    return Date.parse((await found()).happenedAt);
  };
  await fast.clock.setSystemTime(Date.now() + 6 * 3_600_000);
  await expect(fast.getByText(/This device's clock is (6 h|5 h 5\d min) fast/)).toBeVisible();
  await noteAt("after it was set");
  expect(Math.abs((await happened("after it was set")) - Date.now())).toBeLessThan(60_000);
  await fast.context().setOffline(true);
  await fast.clock.setSystemTime(Date.now() - 2 * 3_600_000);
  await expect(fast.getByText(/This device's clock moved back by .* while the workshop cannot be reached/)).toBeVisible();
  await noteAt("set without the network");
  await fast.context().setOffline(false);
  expect(Math.abs((await happened("set without the network")) - Date.now())).toBeLessThan(120_000);
  await expect(fast.getByText(/moved back by/)).toBeHidden();

  // A page that is open turns the day: what it counts by days itself, and what the server tells by days.
  const open = await browser.newPage();
  await open.clock.install();
  await open.route("**/api/clock", (route) => route.abort());
  await open.route("**/api/health", (route) => route.abort());
  await open.goto(`${address}/sell`);
  await listens(open);
  const days = async () => Number(/\b(\d+) d\b/.exec(await open.locator("main").innerText())?.[1]);
  const left = await days();
  expect(left).toBeGreaterThan(1);
  await open.clock.fastForward("24:00:00");
  await expect.poll(days).toBe(left - 1);
  const again = open.waitForRequest((request) => request.headers().rsc === "1");
  await open.unroute("**/api/health");
  await open.clock.fastForward("00:01:00");
  await again;
  shed.child.kill("SIGINT");
  expect(await shed.ended).toBe(0);
});

test("what the Containerfile builds holds nothing that only tests need, leaves its sources as they were, and starts", async () => {
  // All browser tests are served from that build.
  for (const name of ["vitest", "@playwright/test", "@biomejs/biome"]) expect(existsSync(join(PROGRAM, "node_modules", name)), name).toBe(false);
  for (const file of ["package.json", "package-lock.json", "web/package.json", "web/tsconfig.json"])
    expect(readFileSync(join(PROGRAM, file), "utf8"), file).toBe(readFileSync(new URL(`../${file}`, import.meta.url), "utf8"));
  const [command, ...args] = JSON.parse(containerLines("CMD")[0] ?? "[]") as string[];
  expect([command, args[0]]).toEqual(["./hearth", "start"]);
  const run = hearth(["start"], { HEARTH_HOME: home(), PORT: String(await freePort()) });
  expect((await fetch(`${await run.address()}/api/health`)).status).toBe(200);
  run.child.kill("SIGINT");
  expect(await run.ended).toBe(0);
});
