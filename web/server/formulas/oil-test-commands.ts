"use server";

import { dayAt, oilTest, ok, type Result, reject } from "@hearth/core";
import { and, eq, inArray } from "drizzle-orm";
import { oilTests } from "@/data/tables/oil-test";
import { fragrances } from "@/data/tables/shelf";
import { command } from "@/server/http/command";
import { setDeleted } from "@/server/workshops/soft-delete";

/** Saves a test of an oil or a blend of oils; saving it again changes its verdict and note. */
export async function saveOilTest(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command("shelf", oilTest, workshopRef, input, async (test, { db, workshop, now }) => {
    const ids = [...new Set(test.parts.map((part) => part.id))];
    if (ids.length < test.parts.length) return reject("An oil is named twice.", { parts: ["Name each oil once."] });
    if (test.kind === "mixing" && ids.length > 1) return reject("A mixing test is of one oil.", { parts: ["Choose one oil."] });
    if (test.kind === "swab" && ids.length < 2) return reject("A swab test is of a blend: choose a second oil.", { parts: ["Choose a second oil."] });
    if (test.on > dayAt(now, workshop.timeZone)) return reject("That day is still to come.", { on: ["That day is still to come."] });
    const known = await db
      .select({ id: fragrances.id })
      .from(fragrances)
      .where(and(eq(fragrances.workshopId, workshop.id), inArray(fragrances.id, ids)));
    if (known.length < ids.length) return reject("That oil is not on this shelf.", { parts: ["Choose an oil from the shelf."] });
    const { id, ...values } = test;
    await db
      .insert(oilTests)
      .values({ workshopId: workshop.id, id, at: now, ...values })
      .onConflictDoUpdate({ target: [oilTests.workshopId, oilTests.id], set: values });
    return ok({ id });
  });
}

/** Deletes a test of an oil, or restores it. */
export async function deleteOilTest(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return setDeleted("shelf", oilTests, "This test is no longer in this workshop.", workshopRef, input);
}
