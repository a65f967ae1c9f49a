import { randomFrom } from "@hearth/core";
import { demoNumber, MATERIAL_GROUP } from "../materials";
import type { Burns, DemoTrial } from "../trials";
import { demoId } from "../workshop";
import { crewAt, type YearsScenario } from "./scenario";

const TRIALS_A_YEAR = 10;

/** How a wick burns in a container of this width: too small, right, or too large for it. Invented. */
function burnsOf(wick: number, fit: "small" | "right" | "large", widthMm: number, random: () => number): Burns {
  const vary = (value: number, by: number) => Math.round((value + (random() - 0.5) * by) * 10) / 10;
  if (fit === "small")
    return { wick, endsMm: vary(widthMm * 0.72, 4), hours: vary(1.6, 0.3), deepMm: 7, flame: "small", wallC: vary(38, 4), gramsPerHour: vary(2.9, 0.4) };
  if (fit === "right")
    return { wick, endsMm: vary(widthMm + 1, 1), hours: vary(1.1, 0.2), deepMm: 9, flame: "steady", wallC: vary(46, 4), gramsPerHour: vary(4.1, 0.4) };
  return {
    wick,
    endsMm: vary(widthMm + 1, 1),
    hours: vary(0.7, 0.1),
    deepMm: 14,
    flame: "large",
    wallC: vary(64, 3),
    gramsPerHour: vary(5.4, 0.4),
    sootFrom: 2,
  };
}

/** Returns the burn trials of the years, oldest first: ten a year, each of a product's wick against the next, and all of them closed. */
export function yearsTrials({ years, days, products, formulas, materials }: YearsScenario): DemoTrial[] {
  const random = randomFrom(20_260_317);
  const tested = products.filter((product) => product.container === "vessel" && product.wickId !== null && product.wicks === 1);
  const many = years * TRIALS_A_YEAR;
  return Array.from({ length: many }, (_, index): DemoTrial => {
    const share = 0.985 - (index / many) * 0.96;
    const daysBefore = Math.round(share * days);
    // Of what was made at the time; of anything where nothing was yet.
    const then = tested.filter((product) => (formulas.find((formula) => formula.id === product.formulaId)?.versions[0]?.daysBefore ?? days) >= daysBefore);
    const product = (then.length > 0 ? then : tested)[(index * 5) % Math.max(1, then.length)] ?? tested[0];
    const formula = formulas.find((formula) => formula.id === product?.formulaId);
    const spec = formula?.versions.at(-1)?.spec;
    const wax = materials.waxes.find((wax) => wax.id === spec?.waxes[0]?.id);
    const oil = materials.fragrances.find((oil) => oil.id === spec?.fragrances[0]?.id);
    const vessel = materials.vessels.find((vessel) => vessel.id === product?.containerId);
    const wick = materials.wicks.findIndex((wick) => wick.id === product?.wickId);
    if (!product || !formula || !spec || !wax || !oil || !vessel || wick < 0) throw new Error("The years of the demo lack what a trial is of.");
    const other = materials.wicks[(wick + 1 + (index % 2)) % materials.wicks.length] ?? materials.wicks[0];
    const otherFits = index % 3 === 0 ? ("large" as const) : ("small" as const);
    const widthMm = vessel.innerTopUm / 1_000;
    return {
      n: 3 + index,
      name: `Wick for ${product.name}${index >= tested.length ? `, check ${Math.floor(index / tested.length) + 1}` : ""}`,
      varies: "wick size",
      product: demoNumber(product.id),
      vessel: demoNumber(vessel.id),
      wax: wax.name,
      family: wax.family,
      scent: oil.name,
      loadPpm: spec.loadPpm ?? 80_000,
      formula: formula.name,
      dyed: false,
      begunDaysBefore: daysBefore,
      lit: [1, 2, 3].map((session) => (daysBefore - session) * 24),
      variants: [
        burnsOf(demoNumber(other?.id ?? demoId(MATERIAL_GROUP.wick, 1)), otherFits, widthMm, random),
        burnsOf(demoNumber(product.wickId ?? ""), "right", widthMm, random),
      ],
      crew: crewAt(share, index),
      ended: {
        daysBefore: daysBefore - 6,
        scores: (["bathroom", "bedroom", "living room"] as const).map((room, far) => ["B1", room, 8 - far - (index % 3), 8 - far - (index % 2)]),
        decided: [
          { variant: "A", verdict: "failed", why: otherFits === "large" ? "soots" : "tunnels" },
          { variant: "B", verdict: "passed", why: "" },
        ],
      },
    };
  });
}
