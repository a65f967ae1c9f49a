import { standing, writeStanding } from "../../heat/range";
import { bandsOf } from "../../process/process";
import { ACT_OF_OLD_RANGE } from "../../process/upcast";
import { COLDEST, HOTTEST } from "../../units/temperature";
import { putOnCurve } from "../facts";
import { atWork, batchKind, noSuchAct } from "./kind";

/** A temperature read: as the instrument showed it, and the correction it had then. Hundredths of °C. */
export const read = batchKind({
  kind: "read",
  version: 2,
  payload: ({ z }) =>
    z.object({
      /** The act whose range it is held against; null for a look in between. */
      act: z.string().max(60).nullable(),
      shown: z.number().int().min(COLDEST, "Colder than any workshop.").max(HOTTEST, "Hotter than any wax is heated."),
      correction: z.number().int().min(-2_000).max(2_000),
    }),
  upcast: ({ gate, ...old }) => ("act" in old ? old : { ...old, act: ACT_OF_OLD_RANGE[String(gate)] ?? null }),
  refuse: (facts, payload, plan) => atWork(facts) ?? (payload.act === null || bandsOf(plan.process).some((one) => one.act === payload.act) ? null : noSuchAct),
  apply: (facts, { payload, happenedAt, instrumentId }, plan) => {
    const celsius = payload.shown + payload.correction;
    const key = payload.act ?? "";
    facts.reads[key] = { celsius, at: happenedAt, instrumentId, n: (facts.reads[key]?.n ?? 0) + 1 };
    putOnCurve(facts, happenedAt, celsius, payload.act, instrumentId);
    const { over } = facts;
    if (celsius > plan.process.ceiling) {
      if (over.since === null) {
        over.since = happenedAt;
        over.times += 1;
      }
      over.peak = Math.max(over.peak ?? celsius, celsius);
    } else if (over.since !== null) {
      over.seconds += Math.max(0, Math.round((Date.parse(happenedAt) - Date.parse(over.since)) / 1_000));
      over.since = null;
    }
    const range = bandsOf(plan.process).find((one) => one.act === payload.act)?.range;
    if (facts.onHeat !== null && range && standing(celsius, range).is !== "below") facts.onHeat = null;
  },
  told: (payload, plan, say, instrument) => {
    const celsius = payload.shown + payload.correction;
    const band = bandsOf(plan.process).find((one) => one.act === payload.act);
    const named = band ? `${band.name} reading` : "reading";
    const what = `${named}${instrument ? `, ${instrument}` : ""}${payload.correction === 0 ? "" : ` (shown ${say.tShown(payload.shown)}, corrected)`}`;
    if (!band) return { what, figure: say.t(celsius) };
    const at = standing(celsius, band.range).is;
    return {
      what,
      figure: say.t(celsius),
      standing: writeStanding(celsius, band.name, band.range, say.temperature),
      tone: at === "inside" ? "inside" : at === "above" ? "hot" : "cool",
    };
  },
  columns: (payload, plan) => ({
    what: bandsOf(plan.process).find((one) => one.act === payload.act)?.name ?? "",
    wax_celsius: (payload.shown + payload.correction) / 100,
    shown_celsius: payload.shown / 100,
  }),
});
