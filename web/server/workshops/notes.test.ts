import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import { STARTED } from "@/testing/stored-batch";
import { here, inStoredWorkshop, stored, test, workshopId } from "@/testing/stored-workshop";
import { takeNoteAway } from "./note-commands";
import { addNote, noteSent, notesOf, readPicture } from "./notes";

inStoredWorkshop();

/** A JPEG as far as it is looked at: JFIF, and a frame of so many pixels (ITU-T T.81, annex B). */
const jpeg = (width: number, height: number, more: number[] = []) =>
  Buffer.from([
    ...[0xff, 0xd8, 0xff, 0xe0, 0, 16, 0x4a, 0x46, 0x49, 0x46, 0, 1, 1, 0, 0, 1, 0, 1, 0, 0],
    ...more,
    ...[0xff, 0xc0, 0, 11, 8, height >> 8, height & 255, width >> 8, width & 255, 1, 1, 0x11, 0, 0xff, 0xd9],
  ]).toString("base64");
const note = (over: object = {}) =>
  noteSent.parse({ id: v7(), kind: "batch", of: stored.batch, personId: stored.person, text: " frosted at the rim ", pictures: [], ...over });
const add = (sent: ReturnType<typeof note>, at = STARTED) => addNote(test.db, workshopId, sent, at);
const listed = () => notesOf(test.db, workshopId, "batch", stored.batch);

describe("a note", () => {
  it("is kept once however often it is sent, with its pictures in their order, who wrote it and when", async () => {
    const [text, two] = [v7(), v7()];
    const sent = note({
      pictures: [
        { id: two, jpeg: jpeg(800, 600) },
        { id: text, jpeg: jpeg(30, 40) },
      ],
    });
    expect(await add(sent)).toEqual({ ok: true });
    expect(await add(sent)).toEqual({ ok: true });
    expect(await add(note({ text: "later" }), "2026-02-03T09:00:00.000Z")).toEqual({ ok: true });
    const all = await listed();
    expect(all.map((other) => other.text)).toEqual(["later", "frosted at the rim"]);
    expect(all[1]).toMatchObject({ at: STARTED, by: "Test candle" });
    expect(all[1]?.pictures).toEqual([
      { id: two, width: 800, height: 600 },
      { id: text, width: 30, height: 40 },
    ]);
    expect((await readPicture(test.db, workshopId, two))?.jpeg.toString("base64")).toBe(jpeg(800, 600));
  });

  it("belongs to its workshop: neither it nor its pictures are seen or taken in another", async () => {
    const other = await test.workshop();
    const picture = v7();
    await add(note({ pictures: [{ id: picture, jpeg: jpeg(8, 8) }] }));
    expect(await readPicture(test.db, other, picture)).toBeNull();
    expect(await notesOf(test.db, other, "batch", stored.batch)).toEqual([]);
    // What is not there cannot be noted of, nor by somebody who does not work here.
    expect(await addNote(test.db, other, note(), STARTED)).toMatchObject({ ok: false, status: 404, field: "of" });
    expect(await add(note({ of: v7() }))).toMatchObject({ ok: false, status: 404 });
    expect(await add(note({ kind: "wax" }))).toMatchObject({ ok: false, status: 404 });
    expect(await add(note({ personId: v7() }))).toMatchObject({ ok: false, status: 400, field: "personId" });
    expect(await listed()).toHaveLength(1);
  });

  it("is taken away and put back with its pictures, and goes with its workshop", async () => {
    const picture = v7();
    const sent = note({ pictures: [{ id: picture, jpeg: jpeg(8, 8) }] });
    await add(sent);
    const place = here();
    expect(await takeNoteAway(place, { id: sent.id, gone: true })).toMatchObject({ ok: true });
    expect(await listed()).toEqual([]);
    expect(await readPicture(test.db, workshopId, picture)).toBeNull();
    expect(await takeNoteAway(place, { id: sent.id, gone: false })).toMatchObject({ ok: true });
    expect((await listed())[0]?.pictures).toHaveLength(1);
    expect(await takeNoteAway({ ...place, workshopId: await test.workshop() }, { id: sent.id, gone: true })).toMatchObject({ ok: false });
    await test.owner.query("delete from workshop where id = $1", [workshopId]);
    expect((await test.owner.query("select 1 from picture where workshop_id = $1", [workshopId])).rowCount).toBe(0);
  });

  it("lets in no picture that is none, is too large, or carries more than itself; nothing of such a note is kept", async () => {
    const exif = [0xff, 0xe1, 0, 10, 0x45, 0x78, 0x69, 0x66, 0, 0, 0x4d, 0x4d];
    expect(await add(note({ pictures: [{ id: v7(), jpeg: jpeg(8, 8, exif) }] }))).toMatchObject({
      ok: false,
      status: 400,
      message: expect.stringContaining("where it was taken"),
    });
    expect(await add(note({ pictures: [{ id: v7(), jpeg: Buffer.from("GIF89a").toString("base64") }] }))).toMatchObject({ ok: false, status: 400 });
    expect(await listed()).toEqual([]);
    const faults = (over: object) =>
      noteSent
        .safeParse({ id: v7(), kind: "batch", of: stored.batch, personId: null, text: "x", pictures: [], ...over })
        .error?.issues.map((issue) => issue.path.join("."));
    expect(faults({ text: "  " })).toEqual(["text"]);
    expect(faults({ text: "x".repeat(2_001) })).toEqual(["text"]);
    expect(faults({ kind: "person" })).toEqual(["kind"]);
    expect(faults({ pictures: Array.from({ length: 5 }, () => ({ id: v7(), jpeg: jpeg(8, 8) })) })).toEqual(["pictures"]);
    expect(faults({ pictures: [{ id: v7(), jpeg: "no base64!" }] })).toEqual(["pictures.0.jpeg"]);
    expect(faults({ pictures: [{ id: v7(), jpeg: Buffer.alloc(700_000).toString("base64") }] })).toEqual(["pictures.0.jpeg"]);
  });
});
