import { gunzipSync, gzipSync } from "node:zlib";
import { STOCKED } from "@hearth/core";
import { demoId, WORKSHOP } from "../demo/workshop";
import { OPENED_WITH, routes } from "./routes";
import { expect, open, test, workIn } from "./support";

const SYSTEMS = {
  us: {
    workshop: { mass_unit: "oz", temperature_unit: "F", length_unit: "in", pounds: true, locale: "en-US", currency: "USD" },
    // A dose in a safety data sheet is stated per kilogram of body weight everywhere.
    foreign:
      /°C|\d[\s\u202f\u00a0]?(?:k?g(?!\/kg)|mm|cm|m|ml|cl|l|m²|m³)\b|\b(?:(?:kilo)?grams?|(?:milli|centi)?met(?:er|re)s?|(?:milli)?lit(?:er|re)s?|Celsius|mm|cm|kg(?<!mg\/kg)|ml|cl)\b/g,
  },
  metric: {
    workshop: { mass_unit: "g", temperature_unit: "C", length_unit: "mm", pounds: false, locale: "de-DE", currency: "EUR" },
    foreign:
      /°F|\d[\s\u202f\u00a0]?(?:oz|lb|in(?! ?[a-z\d])|fl oz|ft|″)(?![\w])|\b(?:(?:fluid )?ounces?|(?:a|per|the) pounds?|inch(?:es)?|Fahrenheit|feet|gallons?)\b/g,
  },
} as const;
type System = keyof typeof SYSTEMS;
/** The unit that a scale shows is chosen from all that scales show, as its own words. */
const UNITS_OF_A_SCALE = new Set(["grams", "ounces", "pounds and ounces"]);

/** Imports a copy of the demo as a workshop that works in the given units: scales show the workshop's own unit, and what people wrote is left out. */
async function demoIn(system: System): Promise<{ id: string; ids: Map<string, string[]> }> {
  const at = process.env.HEARTH_URL ?? "";
  const exported = Buffer.from(await (await fetch(`${at}/api/workshops/${WORKSHOP.id}/whole`)).arrayBuffer());
  const id = crypto.randomUUID();
  const ids = new Map<string, string[]>();
  const lines = gunzipSync(exported)
    .toString("utf8")
    .trimEnd()
    .split("\n")
    .map((line) => {
      // A scale of 1 g becomes one of 0.1 oz, of 0.1 g one of 0.01 oz.
      const scaled =
        system === "us" ? line.replaceAll(/("resolution_?[uU]g": ?)1000000\b/g, "$12834952").replaceAll(/("resolution_?[uU]g": ?)100000\b/g, "$1283495") : line;
      const entry = JSON.parse(scaled.replaceAll(WORKSHOP.id, id)) as { table?: string; row?: Record<string, unknown> };
      if (entry.table === "workshop") Object.assign(entry.row as object, SYSTEMS[system].workshop);
      if (entry.row?.kind === "note" || entry.table === "note") return JSON.stringify(entry).replaceAll(/("text": ?)"[^"]*"/g, '$1"a note"');
      if (entry.table && typeof entry.row?.id === "string") ids.set(entry.table, [...(ids.get(entry.table) ?? []), entry.row.id]);
      return JSON.stringify(entry);
    });
  const answer = await fetch(`${at}/api/workshops`, { method: "POST", body: gzipSync(lines.join("\n")), headers: { origin: at } });
  expect(await answer.text()).toContain('"ok":true');
  return { id, ids };
}

/** Every page of a workshop, those of one thing for some of them. */
function pathsOf(ids: Map<string, string[]>): string[] {
  const some = (table: string) => {
    const all = ids.get(table) ?? [];
    return [...new Set([...all.slice(0, 7), ...all.slice(-3)])];
  };
  return routes().flatMap((route) => {
    const table = OPENED_WITH[route];
    if (!route.includes("[")) return [route];
    if (!table) throw new Error(`Say with what ${route} is opened.`);
    if (table === "shelf") return STOCKED.flatMap((kind) => some(kind).map((id) => `/shelf/${kind}/${id}`));
    return some(table).map((id) => route.replace("[id]", id));
  });
}

const plain = (text: string) => text.replace(/&#x27;|&quot;/g, "'").replace(/&amp;/g, "&");

/** The texts of a page as it comes from the server: what is seen, what is folded away, and what is read aloud. */
function textsOf(html: string): string[] {
  const shown = html.replace(/<script[\s\S]*?<\/script>|<style[\s\S]*?<\/style>/g, "").replace(/<!--[^>]*-->/g, "");
  const aloud = [...shown.matchAll(/(?:aria-label|placeholder|title|value|alt)="([^"]*)"/g)].map((match) => match[1] ?? "");
  return [
    ...plain(shown)
      .replace(/<\/?(?:b|strong|em|span|a|i)\b[^>]*>/g, "")
      .split(/<[^>]+>/),
    ...aloud.map(plain),
  ]
    .map((text) => text.trim())
    .filter(Boolean);
}

for (const system of ["us", "metric"] as const)
  test(`no page, no file and no paper of a ${system === "us" ? "US" : "metric"} workshop names a unit of the other system`, async ({ page, context }) => {
    const { foreign } = SYSTEMS[system];
    const { id, ids } = await demoIn(system);
    const found = new Set<string>();
    const note = (path: string, texts: readonly string[]) => {
      for (const text of texts) {
        if (UNITS_OF_A_SCALE.has(text.trim())) continue;
        const match = text.match(foreign) ?? text.match(/\{[^{}]*\|[^{}]*\}/g);
        if (match) found.add(`${path.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/, "ID")}: “${match[0]}” in “${text.slice(0, 160)}”`);
      }
    };
    const paths = pathsOf(ids);
    expect(paths.length).toBeGreaterThan(100);
    for (const path of paths) {
      const answer = await fetch(`${process.env.HEARTH_URL}/w/${id}${path === "/" ? "" : path}`);
      if (answer.status === 200) note(path, textsOf(await answer.text()));
    }
    // Files: their first line is the heads.
    const api = `${process.env.HEARTH_URL}/api/workshops/${id}`;
    const wrongHeads = system === "us" ? /_(g|c|mm|ml)\b|grams|celsius/ : /_(oz|f|in)\b|ounces|fahrenheit|specific_gravity/;
    const files = [...STOCKED, "vessel", "instrument", "lot", "mold"].map((kind) => `shelf/${kind}`);
    files.push(`batches/${ids.get("batch")?.[1]}/record?as=csv`, `trials/${ids.get("trial")?.[0]}/record?as=csv`);
    for (const file of files) {
      const [heads = ""] = (await (await fetch(`${api}/${file}`)).text()).split("\n");
      expect.soft(heads.match(wrongHeads)?.[0] ?? "", `${file}: ${heads}`).toBe("");
    }
    // What is shown only once something was typed or pressed.
    await workIn(context, id);
    const look = async (path: string) => note(path, (await page.locator("body").innerText()).split("\n"));
    const wrong = async (path: string, label: string | RegExp, text = "about so much") => {
      const field = page.getByLabel(label).first();
      await field.fill(text);
      await field.blur();
      await expect(page.getByRole("alert").first()).toBeVisible();
      await look(`${path} with “${text}”`);
    };
    await open(page, "/shelf");
    for (const [kind, label] of [
      ["wax", "Solid density"],
      ["fragrance", "Density"],
      ["vessel", "Inner height"],
      ["instrument", "Step"],
      ["pack", "Inner length"],
    ] as const) {
      const name = label === "Density" || label === "Solid density" ? /density|specific gravity/i : label;
      await page.getByRole("button", { name: `Add ${kind === "instrument" ? "an" : "a"} ${kind}` }).click();
      await wrong(`/shelf, a new ${kind}`, name);
      await page.getByRole("button", { name: "Cancel" }).first().click();
    }
    await open(page, `/plan?formula=${demoId(6, 1)}`);
    await page.getByLabel("Count").nth(1).fill("12");
    for (const button of await page.getByRole("button", { name: /show the calculation/ }).all()) {
      await button.click();
      await expect(page.getByRole("dialog")).toBeVisible();
      await look("/plan, a calculation");
      await page.keyboard.press("Escape");
    }
    await open(page, `/shelf/vessel/${demoId(4, 6)}`);
    for (const button of await page.getByRole("button", { name: /show the calculation/ }).all()) {
      await button.click();
      await look("/shelf/vessel, a calculation");
      await page.keyboard.press("Escape");
    }
    await open(page, `/bench/${demoId(8, 5)}`);
    await look("/bench/ID");
    expect([...found]).toEqual([]);
  });
