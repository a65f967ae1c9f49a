import { type BatchEvent, type BatchPlan, type ChosenProduct, type EventBody, planBatch, type SeenFlaw, wicksOf } from "@hearth/core";
import { demoNumber } from "./materials";
import { type DemoBatch, demoId, INSTRUMENTS, type JarsGone, type Scenario, SHED } from "./workshop";

const need = <T>(value: T | undefined, what: string): T => {
  if (value === undefined) throw new Error(`The demo lacks ${what}.`);
  return value;
};

/** Which step a reading of the demo belongs to. */
const STEP_OF: Record<string, string | null> = { heat: "heat", add: "add", pour: "cool", watch: null };

type Container = { innerTopUm: number; innerBottomUm: number };
/** Returns the first wick whose span holds the container's diameter and that is for this family of wax. */
export function wickOfWidth(wicks: Scenario["materials"]["wicks"], { innerTopUm, innerBottomUm }: Container, family: string) {
  const at = Math.min(innerTopUm, innerBottomUm);
  return wicks.find((wick) => wick.fromUm <= at && at <= wick.toUm && (!("families" in wick) || !wick.families || wick.families.includes(family)));
}

/** Returns the events of one demo batch, hung on `now`; with `many`, a busy workshop's: a reading a minute, and every jar looked at. */
export function eventsOfDemo(demo: DemoBatch, now: Date, many = false, { formulas, materials }: Scenario = SHED): BatchEvent[] {
  const version = need(
    formulas.flatMap((formula) => formula.versions.map((version) => ({ ...version, formula }))).find((item) => item.id === demo.version),
    "a version",
  );
  const family = need(
    materials.waxes.find((wax) => wax.id === version.spec.waxes[0]?.id),
    "a wax",
  ).family;
  const wickFor = (container: Container & { wicks?: number | undefined }): ChosenProduct["chosenWicks"] => {
    const wick = wickOfWidth(materials.wicks, container, family);
    return wick ? wicksOf(wick, container.wicks ?? 1) : null;
  };
  const products = [
    ...demo.vessels.map(([n, count]): ChosenProduct => {
      const vessel = need(
        materials.vessels.find((vessel) => vessel.id === demoId(4, n)),
        "a vessel",
      );
      return { ...vessel, container: "vessel", count, chosenWicks: wickFor(vessel) };
    }),
    ...(demo.molds ?? []).map(([n, count]): ChosenProduct => {
      const mold = need(
        materials.molds.find((mold) => mold.id === demoId(0x24, n)),
        "a mold",
      );
      return { ...mold, container: "mold", statedFillMg: mold.fillMg, workingFillMg: mold.fillMg, soldByWeight: false, count, chosenWicks: wickFor(mold) };
    }),
  ];
  const formula = { name: version.formula.name, number: version.number, spec: version.spec };
  const scaleOf = (n: number) => {
    const { id, name, resolutionUg } = need(INSTRUMENTS[n], "a scale");
    return { id, name, resolutionUg: resolutionUg ?? 1_000_000 };
  };
  const plan = planBatch(
    { process: version.spec.process, pots: [formula], products, sparePpm: demo.sparePpm, scales: { wax: scaleOf(0), oil: scaleOf(1) } },
    materials,
  );
  const events: BatchEvent[] = [];
  const startMs = now.getTime() - demo.startedBefore * 1_000;
  const add = (after: number, body: EventBody, more: { instrumentId?: string; corrects?: string; who?: number; person?: number } = {}): string => {
    const at = new Date(startMs + after * 1_000).toISOString();
    const id = demoId(0x900 + demoNumber(demo.id) + (demo.id.startsWith(demoId(0x18, 1).slice(0, 13)) ? 0x100 : 0), events.length + 1);
    events.push({
      id,
      happenedAt: at,
      arrivedAt: at,
      personId: demoId(1, more.person ?? demo.crew?.[(more.who ?? 1) - 1] ?? more.who ?? 1),
      instrumentId: more.instrumentId ?? null,
      corrects: more.corrects ?? null,
      ...body,
    } as BatchEvent);
    return id;
  };
  add(0, { kind: "started", payload: { plan } });
  plan.pots[0]?.components.forEach((part, index) => {
    const at = demo.weighedAt + index * 60;
    if (part.count) {
      add(at, { kind: "counted", payload: { pot: 0, componentId: part.id, n: part.count.n } });
      return;
    }
    const mg = part.mg + (demo.off[index] ?? 0);
    const instrumentId: string = part.scale.id ?? demoId(5, 1);
    if (index === 1 && demo.slip) {
      const wrong = add(at, { kind: "weighed", payload: { pot: 0, componentId: part.id, mg: demo.slip } }, { instrumentId });
      add(at + 20, { kind: "weighed", payload: { pot: 0, componentId: part.id, mg } }, { instrumentId, corrects: wrong });
    } else add(at, { kind: "weighed", payload: { pot: 0, componentId: part.id, mg } }, { instrumentId });
  });
  if (many)
    for (const [at, celsius] of between(demo.readings))
      add(at, { kind: "read", payload: { step: null, shown: Math.round(celsius * 100), correction: -50 } }, { instrumentId: demoId(5, 3), who: 2 });
  for (const [what, at, celsius, tool] of demo.readings) {
    const instrument = tool === "infrared" ? need(INSTRUMENTS[3], "the infrared") : need(INSTRUMENTS[2], "the probe");
    add(
      at,
      { kind: "read", payload: { step: STEP_OF[what] ?? null, shown: Math.round(celsius * 100), correction: instrument.correction } },
      { instrumentId: instrument.id, who: what === "watch" ? 2 : 1 },
    );
  }
  if (demo.stirredAt) add(demo.stirredAt, { kind: "stirred", payload: { step: "stir", seconds: 120 } });
  if (demo.pouredAt)
    add(demo.pouredAt, {
      kind: "poured",
      payload: {
        step: "pour",
        filled: plan.products.map((product) => ({ product: product.key, count: product.count, ...weightsOf(demo, product) })),
        leftMg: null,
        roomCelsius: Math.round((demo.room ?? (demo.number % 2 === 1 ? 21 : 18.5)) * 100),
        warmed: demo.warmed ?? (demo.number % 2 === 1 ? "heat gun" : "no"),
      },
    });
  if (many) for (const { at, ...payload } of looksOf(demo, plan)) add(at, { kind: "jarsInspected", payload }, { who: 2 });
  else
    for (const { vessel, ...flaw } of demo.flaws ?? [])
      add((demo.lookedAt ?? 0) - 300, { kind: "flaw", payload: { ...flaw, product: demoId(4, vessel) } }, { who: 2 });
  if (demo.lookedAt) add(demo.lookedAt, { kind: "inspected", payload: { jars: products.reduce((sum, product) => sum + product.count, 0) } }, { who: 2 });
  for (const [at, text] of demo.notes ?? []) add(at, { kind: "note", payload: { text } });
  if (demo.abandonedAt) add(demo.abandonedAt, { kind: "abandoned", payload: { why: "scorched", wax: "thrown away", mg: null } });
  if (demo.closedAt) add(demo.closedAt, { kind: "closed", payload: { missing: [] } });
  afterwards(demo, plan, add);
  return events;
}

type Add = (after: number, body: EventBody, more?: { who?: number; person?: number }) => string;
const DAY = 86_400;
const SHELVES = ["upper shelf", "cellar rack", "shelf by the door"];
const BUYERS = ["Fernlow market", "the door", "Quillfen fair"];

/** What happens to a batch on the rack: where it stands, how it smells over the cure, and where its jars went once it was closed. */
function afterwards(demo: DemoBatch, plan: BatchPlan, add: Add): void {
  const { pouredAt, lookedAt, closedAt, startedBefore, number } = demo;
  if (!pouredAt || !lookedAt) return;
  add(lookedAt + 600, { kind: "located", payload: { shelf: SHELVES[number % 3] ?? "", sun: false, draft: false } }, { who: 2 });
  for (const [days, score] of [
    [1, 2],
    [4, 4],
    [8, 6],
  ] as const) {
    const at = pouredAt + days * DAY;
    if (at > lookedAt && at < startedBefore)
      add(at, { kind: "smelled", payload: { score: Math.min(10, score + (number % 3)), room: "small room" } }, { who: 1 + (number % 2) });
  }
  const rough = (demo.flaws ?? []).find(
    (flaw) => flaw.defect === "rough_top" && plan.products.some((product) => product.containerId === demoId(4, flaw.vessel)),
  );
  if (rough && lookedAt + 5 * DAY < startedBefore) {
    const product = plan.products.find((product) => product.containerId === demoId(4, rough.vessel))?.key ?? "";
    const jars = Math.ceil(rough.jars / 2);
    const repair = add(lookedAt + 1_200, { kind: "repaired", payload: { product, defect: rough.defect, jars, how: "heat gun", mg: null } }, { who: 2 });
    add(lookedAt + 4 * DAY, { kind: "repairChecked", payload: { repair, held: Math.max(0, jars - (number % 3 === 0 ? 1 : 0)) } }, { who: 2 });
  }
  if (!closedAt) return;
  add(closedAt + 60, { kind: "released", payload: { note: "" } });
  if (demo.jarsGone) {
    for (const gone of demo.jarsGone) addJarsGone(gone, plan, add);
    return;
  }
  for (const [index, product] of plan.products.entries()) {
    const unsafe = (demo.flaws ?? []).reduce((sum, flaw) => sum + flaw.jars, 0);
    const jars = Math.max(0, Math.floor(((product.count - (index === 0 ? unsafe : 0)) * (5 + (number % 5))) / 10));
    if (jars > 0)
      add(closedAt + 3_600, {
        kind: "statusChanged",
        payload: { product: product.key, jars, from: "rack", to: "sold", whom: BUYERS[(number + index) % 3] ?? "" },
      });
  }
}

/** The one who packs and sells, whoever made a batch. */
const SELLER = { person: 1 };
/** Adds that jars were packed, or sold as they stood. */
function addJarsGone({ at, containerId, jars, packRun, whom, isSecond }: JarsGone, plan: BatchPlan, add: Add): void {
  const product = plan.products.find((product) => product.containerId === containerId)?.key ?? "";
  if (packRun) add(at, { kind: "packed", payload: { packRun: packRun.id, of: packRun.of, product, jars, packs: packRun.packs, parts: packRun.parts } }, SELLER);
  else add(at, { kind: "statusChanged", payload: { product, jars, from: "rack", to: isSecond ? "second" : "sold", whom } }, SELLER);
}

/** Returns a number between 0 and 1 that hangs on two others, the same each time. */
const chance = (a: number, b: number) => {
  const x = Math.sin(a * 12.9898 + b * 78.233) * 43_758.5453;
  return x - Math.floor(x);
};

/** A few jars of each batch are weighed: about what was planned, some scales and hands off a little. */
const weightsOf = (demo: DemoBatch, product: { fillMg: number; count: number; soldByWeight: boolean }) => {
  const many = product.soldByWeight ? 20 : demo.number % 2 === 0 && product.fillMg > 50_000 ? 4 : 0;
  if (many === 0 || product.count < many / 5) return {};
  // What is sold by weight is weighed by the rules; one batch in three was poured a little short.
  const short = product.soldByWeight && demo.number % 3 === 0 ? 0.03 : 0;
  const weigh = (jar: number) => Math.round(product.fillMg * (1 - short + (chance(demo.number, jar) - 0.45) * 0.02));
  return { weightsMg: Array.from({ length: Math.min(many, product.count) }, (_, jar) => weigh(jar)) };
};

/** A reading a minute between those that are noted anyway. */
function between(readings: DemoBatch["readings"]): [number, number][] {
  return readings.slice(1).flatMap(([, to, warm], index): [number, number][] => {
    const [, from, cool] = readings[index] as DemoBatch["readings"][number];
    const steps = Math.min(24, Math.floor((to - from) / 60) - 1);
    return Array.from({ length: Math.max(0, steps) }, (_, n) => {
      const share = (n + 1) / (steps + 1);
      return [Math.round(from + (to - from) * share), cool + (warm - cool) * share] as [number, number];
    });
  });
}

/** Returns every jar looked at, a few at a time: those with flaws first, the rest fine. */
function looksOf(demo: DemoBatch, plan: BatchPlan) {
  if (!demo.lookedAt) return [];
  const extents = { slight: "patch", clear: "third", severe: "most" } as const;
  const out: { at: number; product: string; jars: number; flaws: SeenFlaw[] }[] = [];
  for (const product of plan.products) {
    const mine = (demo.flaws ?? []).filter((flaw) => demoId(4, flaw.vessel) === product.containerId);
    let left = product.count;
    // The same jars show one flaw, and some of them the other too.
    while (left > 0) {
      const done = product.count - left;
      const flaws = mine.filter((flaw) => done < flaw.jars).map(({ defect, place, severity }) => ({ defect, place, extent: extents[severity] }));
      const next = Math.min(...mine.map((flaw) => flaw.jars - done).filter((jars) => jars > 0), left, 2);
      out.push({ at: demo.lookedAt - 900 + out.length * 20, product: product.key, jars: next, flaws });
      left -= next;
    }
  }
  return out;
}
