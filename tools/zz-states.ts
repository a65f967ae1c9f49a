import { chromium } from "@playwright/test";
import { mkdirSync, writeFileSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { CHROMIUM, FROZEN } from "/work/main/tools/shots.ts";
import { passingHome } from "/work/main/tools/processes.ts";
import { serve } from "/work/main/tools/serve.ts";
import { demoId } from "/work/main/demo/workshop.ts";
const home = passingHome("states"); const clockFile = join(home,"clock"); writeFileSync(clockFile, FROZEN); process.env.HEARTH_ZONE="UTC";
const served = await serve({ home, port: 4720, demo: true, ownDatabase: true, clockFile });
const b = await chromium.launch(CHROMIUM);
mkdirSync("/tmp/st",{recursive:true});
const p = await b.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: "reduce" });
const go = (x: string) => p.goto(served.url + x, { waitUntil: "networkidle" });
const shot = (n: string) => p.screenshot({ path: `/tmp/st/${n}.png` });
try {
await go("/"); await p.keyboard.press("?"); await p.waitForTimeout(200); await shot("help");
await go("/formulas/new"); await p.getByLabel("Name",{exact:true}).fill("Strong mint"); await p.getByLabel("Fragrance").selectOption({label:"garden mint"}); await p.getByLabel("Load").fill("13"); await p.getByLabel("Pour at").fill("850"); await p.getByRole("button",{name:"Save the formula"}).click(); await p.waitForTimeout(200); await shot("warnings");
await go(`/look-over/${demoId(8,4)}`); await p.getByLabel("Vessel").selectOption({ index: 1 }); await p.waitForTimeout(100); await shot("flat");
await go(`/records/${demoId(8,2)}`); await p.mouse.wheel(0, 700); await p.waitForTimeout(200); await shot("record2");
await go(`/bench/${demoId(8,5)}`); await p.mouse.wheel(0, 700); await p.getByRole("button",{name:/^Correct: pour/}).click(); await p.waitForTimeout(200); await shot("correct");
await go("/shelf"); await p.getByRole("button",{name:"Add a vessel"}).click(); await p.waitForTimeout(200); await shot("vessel");
await go("/workshops"); const f = p.locator("section",{hasText:"A new, empty workshop"}).last(); await f.getByLabel("Name of the workshop").fill("Oat barn"); await f.getByLabel("Who works here").fill("Ilvo"); await f.getByRole("button",{name:"Make this workshop"}).click(); await p.getByText("Nothing needs hands").waitFor(); await shot("empty");
await p.setViewportSize({width:390,height:844}); await p.context().clearCookies(); await go(`/plan?formula=${demoId(6,1)}`); await p.getByLabel("Count").first().fill("6"); await p.mouse.wheel(0,700); await p.waitForTimeout(200); await shot("phoneplan");
} finally { await b.close(); await served.stop(); rmSync(home,{recursive:true,force:true}); }
