import Ajv2020 from "ajv/dist/2020.js";
import { parse } from "csv-parse/sync";
import { v7 } from "uuid";
import { demoId } from "../demo/workshop";
import { expect, test } from "./support";

test("the calculation interface answers to the letter, lists its schemas, and tells bad input by field", async ({ request }) => {
  const whole = {
    basis: "wax",
    load_percent: 10,
    max_load_percent: 12,
    vessels: [{ fill_g: 14, count: 10 }],
    spare_percent: 0,
    scale_resolution_g: 1,
  };
  const answer = await request.post("/api/v1/scale", { data: whole });
  expect(answer.status()).toBe(200);
  expect(await answer.json()).toMatchObject({ total_g: 140, wax_g: 127, fragrance_g: 13, load_percent_of_wax: 10.236, load_percent_of_total: 9.286 });
  const bad = await request.post("/api/v1/scale", { data: { ...whole, load_percent: "a lot" } });
  expect(bad.status()).toBe(400);
  expect(await bad.json()).toEqual({ error: { message: "Give a number.", fields: { load_percent: ["Give a number."] } } });
  expect((await request.post("/api/v1/scale", { headers: { "content-type": "application/json" }, data: "{" })).status()).toBe(400);
  const blend = await request.post("/api/v1/scale", {
    data: {
      ...whole,
      waxes: [
        { name: "a", share: 75 },
        { name: "b", share: 25 },
      ],
      additives: [{ name: "s", percent_of_wax: 2 }],
      dye: { drops_per_lb: 6 },
      pitcher_capacity_g: 90,
    },
  });
  const parts = await blend.json();
  expect(parts.components.reduce((sum: number, item: { g: number }) => sum + item.g, 0)).toBe(140);
  expect(parts.pitchers).toHaveLength(2);
  const fill = await request.post("/api/v1/fill", { data: { water_g: 212, wax_density: 0.9 } });
  expect((await fill.json()).fill_g).toBeCloseTo(191.144, 3);
  const low = await request.post("/api/v1/fill", { data: { wax_density: 0.9, geometry: { shape: "bowl", diameter_mm: 90, depth_mm: 40, headspace_mm: 40 } } });
  expect(low.status()).toBe(400);
  expect((await low.json()).error.fields.geometry[0]).toMatch(/leaves no room/);
  const listed = await (await request.get("/api/v1")).json();
  expect(listed.members[0]).toMatchObject({ method: "POST", path: "/api/v1/scale", request: { type: "object" }, response: { type: "object" } });
  expect(await (await request.get(listed.documents[0].path)).json()).toEqual(listed.documents[0].schema);
});

test("a timetable is worked out in a thread of its own, while others are answered", async ({ request }) => {
  const pots = (many: number) =>
    Array.from({ length: many }, (_, n) => ({
      id: `pot ${n + 1}`,
      steps: [
        { id: "weigh", minutes: 6 + (n % 3), needs: { hands: 1 } },
        { id: "melt", minutes: 20, needs: { burner: 1 }, wait: { min: 0, max: 10 }, keeps: ["burner"] },
        { id: "add", minutes: 4, needs: { hands: 1 }, wait: { min: 10, max: 20 } },
        { id: "pour", minutes: 7, needs: { hands: 1 } },
      ],
    }));
  const resources = { hands: 1, burner: 2 };
  const two = await request.post("/api/v1/schedule", { data: { resources, jobs: pots(2), objective: "makespan", seconds: 5 } });
  expect(two.status()).toBe(200);
  const answer = await two.json();
  // 6 + 20 + 4 + 10 + 7 for the first; the second follows the people: 6 + 7 + 20 + 4 + 10 + 7.
  expect(answer).toMatchObject({ makespan: 54, lower_bound: 54, proved_optimal: true, total_lateness: 0 });
  expect(answer.steps).toHaveLength(8);
  expect(answer).not.toHaveProperty("infeasible");
  const none = await request.post("/api/v1/schedule", { data: { resources: { hands: 1, burner: 0 }, jobs: pots(1) } });
  expect(none.status()).toBe(200);
  expect((await none.json()).infeasible).toMatchObject({ job: "pot 1", step: "melt", resource: "burner", reason: expect.stringContaining("burner") });
  const broken = await request.post("/api/v1/schedule", { data: { resources, jobs: [{ id: "a", steps: [{ id: "x", minutes: -1 }] }] } });
  expect(broken.status()).toBe(400);
  expect((await broken.json()).error.fields).toHaveProperty(["jobs.0.steps.0.minutes"]);
  // A step that is held to a minute stands there; where its pot cannot, the answer says when it could. What stands in the background is not waited for.
  const [first, ...others] = pots(2);
  const held = { ...first, steps: first?.steps.map((step) => ({ ...step, ...(step.id === "weigh" ? { at: 12 } : {}) })) };
  const lost = { id: "lost", background: true, steps: [{ id: "gone", minutes: 900, needs: { burner: 1 }, at: 0 }] };
  const kept = await (await request.post("/api/v1/schedule", { data: { resources, jobs: [held, ...others, lost] } })).json();
  expect(kept.steps).toContainEqual({ job: "pot 1", step: "weigh", start: 12, end: 18 });
  expect(kept.makespan).toBeLessThan(900);
  const late = { ...first, steps: first?.steps.map((step) => ({ ...step, ...(step.id === "weigh" ? { at: 12 } : step.id === "pour" ? { at: 40 } : {}) })) };
  const never = await (await request.post("/api/v1/schedule", { data: { resources, jobs: [late] } })).json();
  expect(never.infeasible).toMatchObject({ job: "pot 1", step: "pour", window: { from: 52 } });
  // While a hard one is searched, another request is answered first.
  const order: string[] = [];
  await Promise.all([
    request.post("/api/v1/schedule", { data: { resources: { ...resources, pitcher: 3 }, jobs: pots(14), seconds: 4 } }).then(() => order.push("timetable")),
    request.get("/api/clock").then(() => order.push("clock")),
  ]);
  expect(order).toEqual(["clock", "timetable"]);
  // Who goes away while it is searched leaves its thread to the next.
  const gone = await Promise.allSettled(
    Array.from({ length: 3 }, () =>
      fetch(`${process.env.HEARTH_URL}/api/v1/schedule`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ resources: { ...resources, pitcher: 3 }, jobs: pots(14), seconds: 30 }),
        signal: AbortSignal.timeout(1_500),
      }),
    ),
  );
  expect(gone.map((settledResult) => settledResult.status)).toEqual(["rejected", "rejected", "rejected"]);
  const next = await request.post("/api/v1/schedule", { data: { resources, jobs: pots(2), seconds: 5 }, timeout: 60_000 });
  expect(await next.json()).toMatchObject({ makespan: 54, proved_optimal: true });
});

test("when a pot reaches a temperature is told with its interval, what never comes with the reason, and bad input by field", async ({ request }) => {
  const readings = [85.2, 83.1, 81.2, 79.4, 87.6, 76.0].map((celsius, index) => ({ minute: index * 5, celsius }));
  const answer = await request.post("/api/v1/forecast", { data: { ambient_c: 21, mass_g: 1_800, readings, targets_c: [60, 21] } });
  expect(answer.status()).toBe(200);
  const answered = await answer.json();
  expect(answered.suspect_readings).toEqual([4]);
  expect(answered.targets[0].low).toBeLessThan(answered.targets[0].minute);
  expect(answered.targets[0].minute).toBeLessThan(answered.targets[0].high);
  expect(answered.targets[1]).toMatchObject({ celsius: 21, minute: null, reason: expect.stringContaining("never cools") });
  const late = await request.post("/api/v1/forecast", { data: { ambient_c: 21, readings: [...readings].reverse(), targets_c: [60] } });
  expect(late.status()).toBe(400);
  expect((await late.json()).error.fields).toHaveProperty(["readings.1.minute"]);
  const none = await request.post("/api/v1/forecast", { data: { ambient_c: 21, readings: [], targets_c: [] } });
  expect(Object.keys((await none.json()).error.fields).sort()).toEqual(["readings", "targets_c"]);
});

test("what may have caused a flaw is told cause by cause, holds to its published schema, and bad input is told by field", async ({ request }) => {
  const asked = {
    wax_family: "soy",
    defect: "rough_top",
    ranges: { pour_c: [57, 63], add_c: [83, 87], ceiling_c: 93 },
    record: { pour_c: 72, add_c: 85, load_percent_of_wax: 8, vessel_warmed: true, stir_minutes: 2, cure_days: 7, instrument: "probe" },
  };
  const { members } = await (await request.get("/api/v1")).json();
  const member = members.find((member: { path: string }) => member.path === "/api/v1/diagnose");
  for (const key of ["heat_c", "max_load_percent", "halves", "wick_size_steps", "minutes_above_ceiling", "instrument"])
    expect(Object.keys(member.request.properties.record.properties)).toContain(key);
  const answer = await request.post("/api/v1/diagnose", { data: asked });
  expect(answer.status()).toBe(200);
  const answered = await answer.json();
  const ajv = new Ajv2020({ strict: false });
  expect(ajv.validate(member.response, answered), ajv.errorsText()).toBe(true);
  expect(answered.class).toBe("cosmetic");
  expect(answered.causes[0]).toMatchObject({ key: "pour_c", verdict: "supported", evidence: { measured: 72, limit: 63, unit: "°C" } });
  expect(answered.change_next).toMatchObject({ what: "pour_c", from: 72, to: 60 });
  const bad = await request.post("/api/v1/diagnose", { data: { ...asked, defect: "sulking", record: { draught: "a little" } } });
  expect(bad.status()).toBe(400);
  expect(Object.keys((await bad.json()).error.fields)).toEqual(expect.arrayContaining(["defect", "record.draught"]));
});

test("whether packs hold what they state is told with the fill that would pass, and what the rules do not cover by field", async ({ request }) => {
  const weights = Array.from({ length: 20 }, (_, index) => 197 + (index % 3));
  const answer = await request.post("/api/v1/net-quantity", { data: { stated_g: 200, weights_g: weights } });
  expect(answer.status()).toBe(200);
  expect(await answer.json()).toEqual({
    mean_g: 197.95,
    sd_g: 0.826,
    tolerable_negative_error_g: 9,
    below: 0,
    below_twice: 0,
    mean_limit_g: 199.472,
    verdict: "fail",
    why: expect.stringContaining("The mean of 197.95 g is below 199.472 g"),
    may_fall_short: 1,
    fill_to_pass_g: 200,
    fill_passes_share: 0.99,
  });
  expect(await (await request.post("/api/v1/net-quantity", { data: { stated_g: 200, weights_g: [201] } })).json()).toMatchObject({ verdict: "too_few" });
  const bad = await request.post("/api/v1/net-quantity", { data: { stated_g: 2, weights_g: [0] } });
  expect(bad.status()).toBe(400);
  expect(Object.keys((await bad.json()).error.fields)).toEqual(expect.arrayContaining(["stated_g"]));
});

test("burn sessions and the hazards of a mixture are answered by their published schemas, and an unknown class is refused by its name", async ({ request }) => {
  const { members } = await (await request.get("/api/v1")).json();
  const ajv = new Ajv2020({ strict: false });
  const ask = async (path: string, data: object) => {
    const answer = await request.post(path, { data });
    expect(answer.status()).toBe(200);
    const answered = await answer.json();
    const { response } = members.find((member: { path: string }) => member.path === path);
    expect(ajv.validate(response, answered), ajv.errorsText()).toBe(true);
    return answered;
  };
  const looks = [{ minute: 75, pool_mm: 52, pool_depth_mm: 4, flame: "steady", flame_mm: 22, mushroom: false, soot: false, wall_c: 41 }];
  const sessions = [{ looks, grams_before: 212.4, grams_after: 196.1, minutes: 240 }];
  const vessel = { inner_top_mm: 83, inner_bottom_mm: 76, height_mm: 90 };
  expect(await ask("/api/v1/burn", { vessel, wax_family: "soy", sessions, fill: "full", tare_g: 0 })).toMatchObject({
    safety: { pass: true, reasons: [] },
    pool: { verdict: "not_recorded", full_at_minute: null },
    grams_per_hour: { value: 4.08 },
    hours_left: { value: expect.closeTo(48.1, 0) },
    advice: { what: "keep" },
  });
  const ingredients = [
    { name: "a", percent: 12, classes: ["Skin Sens. 1B"], m: 1, ate_oral_mg_kg: null, specific_limits: [{ class: "Skin Sens. 1B", percent: 0.5 }] },
  ];
  expect(await ask("/api/v1/label/hazard", { parts: [{ percent: 7.407, ingredients }] })).toMatchObject({
    classes: ["Skin Sens. 1"],
    signal: "Warning",
    pictograms: ["GHS07"],
    h: ["H317"],
    contains: ["a"],
    draft: true,
  });
  const bad = await request.post("/api/v1/label/hazard", {
    data: { parts: [{ percent: 7, ingredients: [{ name: "a", percent: 12, classes: ["Moody 1"] }] }] },
  });
  expect(bad.status()).toBe(400);
  expect((await bad.json()).error.message).toContain("“Moody 1”");
});

test("an event may be sent twice, and a faulty one is told by field", async ({ request, workshop }) => {
  const path = `/api/workshops/${workshop}/batches/${demoId(8, 6)}/events`;
  const event = { id: v7(), kind: "note", happenedAt: "2026-03-14T14:19:00.000Z", personId: null, payload: { text: "Sent by another program" } };
  // The answer names the entry and its place, so that nothing else can be taken for it.
  const answer = { ok: true, id: event.id, seq: expect.any(Number), epoch: expect.stringMatching(/^\d+\.\d+\.\d+$/) };
  expect(await (await request.post(path, { data: event })).json()).toEqual({ ...answer, repeated: false });
  expect(await (await request.post(path, { data: event })).json()).toEqual({ ...answer, repeated: true });
  const hot = await request.post(path, { data: { ...event, id: v7(), kind: "read", payload: { step: "heat", shown: 85_000, correction: 0 } } });
  expect(hot.status()).toBe(400);
  expect((await hot.json()).error.fields).toHaveProperty("shown");
  const future = await request.post(path, { data: { ...event, id: v7(), happenedAt: "2026-03-15T14:19:00.000Z" } });
  expect((await future.json()).error.fields.happenedAt[0]).toMatch(/ahead of now/);
});

test("what leaves as JSON holds to its published schema, and what leaves as CSV is read by another library", async ({ request, workshop }) => {
  const ajv = new Ajv2020({ strict: false, validateFormats: false });
  const schema = (await (await request.get("/api/v1/schemas/batch-record.json")).json()) as { title?: string; $id?: string };
  expect(schema.title).toBeTruthy();
  expect(schema.$id).toContain("batch-record");
  const validate = ajv.compile(schema);
  for (const n of [1, 2, 5, 6]) {
    const record = await (await request.get(`/api/workshops/${workshop}/batches/${demoId(8, n)}/record`)).json();
    expect(validate(record), JSON.stringify(validate.errors?.slice(0, 2))).toBe(true);
    const csv = await (await request.get(`/api/workshops/${workshop}/batches/${demoId(8, n)}/record?as=csv`)).text();
    const rows = parse(csv, { columns: true, bom: true }) as Record<string, string>[];
    expect(rows).toHaveLength((record as { events: unknown[] }).events.length);
  }
  for (const kind of ["wax", "fragrance", "dye", "additive", "wick", "vessel", "mold", "instrument", "lot", "product"]) {
    const csv = await (await request.get(`/api/workshops/${workshop}/shelf/${kind}`)).text();
    const rows = parse(csv, { columns: true, bom: true }) as Record<string, string>[];
    expect(rows.length, kind).toBeGreaterThan(0);
    // Parted by semicolons with decimal commas, as a spreadsheet of such a place would save it, it is still the same table.
    const again = parse(stringify(rows, ";"), { columns: true, delimiter: ";" }) as Record<string, string>[];
    expect(again).toEqual(rows);
  }
});

/** A table as a spreadsheet writes it, every cell in quotes. */
const stringify = (rows: Record<string, string>[], sign: string): string =>
  [Object.keys(rows[0] ?? {}), ...rows.map((row) => Object.values(row))]
    .map((cells) => cells.map((cell) => `"${cell.replaceAll('"', '""')}"`).join(sign))
    .join("\n");

test("a list is read on from where it ended, whether by count or by the last one, and not from nowhere", async ({ request }) => {
  for (const path of ["/rack?after=25", "/burn?after=2", "/records?after=2026-03-14T09:00:00.000Z_0190c0de-0008-7000-8000-000000000001"])
    expect((await request.get(path)).status(), path).toBe(200);
  for (const path of ["/rack?after=soon", "/rack?after=-1", "/records?after=2026-13-44T09:00:00.000Z_x"])
    expect((await request.get(path)).status(), path).toBe(400);
});
