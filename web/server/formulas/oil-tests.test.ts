import { v7 } from "uuid";
import { expect, it, vi } from "vitest";
import { fragrances } from "@/data/tables/shelf";
import { merge, undoMerge } from "@/server/inventory/merge";
import { inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { deleteOilTest, saveOilTest } from "./oil-test-commands";
import { listOilTests } from "./oil-tests";

vi.mock("next/headers", () => import("@/testing/headers"));
vi.mock("next/cache", () => import("@/testing/cache"));
inStoredWorkshop();
const here = () => ({ workshopId, personId: stored.person });

it("a test of oils is kept with each oil in it, deleted and restored, and goes over to the oil that a merge keeps", async () => {
  const [fern, twin] = [v7(), v7()];
  await test.db.insert(fragrances).values([
    { workshopId, id: fern, name: "fern", kind: "fragrance" },
    { workshopId, id: twin, name: "fern again", kind: "fragrance" },
  ]);
  const blend = {
    id: v7(),
    kind: "swab",
    parts: [
      { id: stored.oil, drops: 6 },
      { id: twin, drops: 4 },
    ],
    on: "2026-02-01",
    verdict: "open",
    note: "sweet after a day",
  };
  value(await saveOilTest(here(), blend));
  value(await saveOilTest(here(), { ...blend, verdict: "good" }));
  expect(await listOilTests(test.db, workshopId, twin)).toEqual([{ ...blend, verdict: "good" }]);
  expect(await listOilTests(test.db, workshopId, fern)).toEqual([]);
  const { mergeId } = value(await merge(here(), { mergeId: v7(), kind: "fragrance", goneId: twin, keptId: fern }));
  expect((await listOilTests(test.db, workshopId, fern)).map((item) => item.parts.map((part) => part.id))).toEqual([[stored.oil, fern]]);
  value(await undoMerge(here(), { mergeId }));
  expect(await listOilTests(test.db, workshopId, twin)).toHaveLength(1);
  value(await deleteOilTest(here(), { id: blend.id, gone: true }));
  expect(await listOilTests(test.db, workshopId)).toEqual([]);
  value(await deleteOilTest(here(), { id: blend.id, gone: false }));
  expect(await listOilTests(test.db, workshopId)).toHaveLength(1);
});

it("a test is refused at its field: one oil twice or alone on a swab, two in mineral oil, a day to come, an oil that is not here", async () => {
  const base = { id: v7(), kind: "swab", on: "2026-02-01", verdict: "open", note: "" };
  const part = (id: string) => ({ id, drops: 1 });
  for (const [input, field] of [
    [{ ...base, parts: [part(stored.oil), part(stored.oil)] }, "parts"],
    [{ ...base, parts: [part(stored.oil)] }, "parts"],
    [{ ...base, kind: "mixing", parts: [part(stored.oil), part(v7())] }, "parts"],
    [{ ...base, kind: "mixing", parts: [part(v7())] }, "parts"],
    [{ ...base, kind: "mixing", on: "2999-01-01", parts: [part(stored.oil)] }, "on"],
    [{ ...base, kind: "mixing", parts: [] }, "parts"],
  ] as const) {
    const answer = await saveOilTest(here(), input);
    expect(answer).toMatchObject({ ok: false });
    if (!answer.ok) expect(Object.keys(answer.fields)).toContain(field);
  }
});
