import { randomBytes } from "node:crypto";
import { gunzipSync, gzipSync } from "node:zlib";
import { expect, open, test } from "./support";

const linesOf = (file: Buffer): string[] => gunzipSync(file).toString("utf8").trimEnd().split("\n");

test("a workshop is downloaded, imported under Workshops with its progress shown, and opens with all that it had", async ({ page, workshop }) => {
  await open(page, "/people");
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "Download everything" }).click();
  const stream = await (await download).createReadStream();
  const chunks: Buffer[] = [];
  for await (const chunk of stream) chunks.push(chunk as Buffer);
  // As from another server: with another id, and larger than any other body that the server takes.
  const fresh = crypto.randomUUID();
  const lines = linesOf(Buffer.concat(chunks)).map((line) => line.replaceAll(workshop, fresh));
  const note = lines.find((line) => line.startsWith('{"table":"note"')) ?? "";
  const more = Array.from({ length: 40 }, () => {
    const { row } = JSON.parse(note) as { row: Record<string, unknown> };
    return JSON.stringify({ table: "note", row: { ...row, id: crypto.randomUUID(), text: randomBytes(256 * 1_024).toString("base64") } });
  });
  const end = JSON.stringify({ end: true, rows: lines.length - 2 + more.length });
  const file = gzipSync([...lines.slice(0, -1), ...more, end].join("\n"), { level: 1 });
  expect(file.length).toBeGreaterThan(10 * 1_024 * 1_024);

  await open(page, "/workshops");
  const section = page.locator("section", { hasText: "Import a workshop" }).last();
  await section.getByRole("button", { name: "Import workshop" }).click();
  await expect(section.getByText("Choose the file first.")).toBeVisible();
  await section.getByLabel("File of the workshop").setInputFiles({ name: "notes.txt", mimeType: "text/plain", buffer: Buffer.from("not a workshop export\n") });
  await section.getByRole("button", { name: "Import workshop" }).click();
  await expect(section.getByText(/This file is not a workshop export/)).toBeVisible();
  await section.getByLabel("File of the workshop").setInputFiles({ name: "workshop.ndjson.gz", mimeType: "application/gzip", buffer: file });
  await section.getByRole("button", { name: "Import workshop" }).click();
  await expect(section.getByRole("status")).toContainText(/(Sending the file|Importing the file): \d+ %/);
  await expect(page).toHaveURL(new RegExp(`/w/${fresh}$`));
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  const again = linesOf(Buffer.from(await (await fetch(`${process.env.HEARTH_URL}/api/workshops/${fresh}/whole`)).arrayBuffer()));
  const rows = (all: readonly string[]) =>
    all
      .slice(1, -1)
      .map((line) => JSON.stringify(JSON.parse(line)))
      .sort();
  expect(rows(again)).toEqual(rows([...lines.slice(0, -1), ...more, end]));
});
