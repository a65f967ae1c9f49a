import { rangeStatus, writeRangeStatus } from "../../heat/range";
import { bandsOf } from "../../process/process";
import { STEP_OF_OLD_RANGE, upcastStepId } from "../../process/upcast";
import { COLDEST, HOTTEST } from "../../units/temperature";
import { putOnCurve } from "../state";
import { atWork, batchEvent, noSuchStep } from "./event-type";

/** A temperature read: as the instrument showed it, and the correction it had then. Hundredths of °C. */
export const read = batchEvent({
  kind: "read",
  version: 3,
  payload: ({ z }) =>
    z.object({
      /** The step whose range it is compared with; null for a look in between. */
      step: z.string().max(60).nullable(),
      shown: z.number().int().min(COLDEST, "Colder than any workshop.").max(HOTTEST, "Hotter than any wax is heated."),
      correction: z.number().int().min(-2_000).max(2_000),
      untimed: z.boolean().optional().describe("when it was read is not known, so it is no point of the cooling curve"),
    }),
  upcast: ({ gate, ...old }) => ("act" in old ? upcastStepId(old) : { ...old, step: STEP_OF_OLD_RANGE[String(gate)] ?? null }),
  validate: (state, payload, plan) =>
    atWork(state) ?? (payload.step === null || bandsOf(plan.process).some((band) => band.step === payload.step) ? null : noSuchStep),
  apply: (state, { payload, happenedAt, instrumentId }, plan) => {
    const celsius = payload.shown + payload.correction;
    const key = payload.step ?? "";
    state.reads[key] = { celsius, at: happenedAt, instrumentId, n: (state.reads[key]?.n ?? 0) + 1 };
    if (!payload.untimed) putOnCurve(state, happenedAt, celsius, payload.step, instrumentId);
    const { over } = state;
    if (celsius > plan.process.ceiling) {
      if (over.since === null) {
        // How long it lasted cannot be told from a reading without a time.
        if (!payload.untimed) over.since = happenedAt;
        over.times += 1;
      }
      over.peak = Math.max(over.peak ?? celsius, celsius);
    } else if (over.since !== null && !payload.untimed) {
      over.seconds += Math.max(0, Math.round((Date.parse(happenedAt) - Date.parse(over.since)) / 1_000));
      over.since = null;
    }
    const range = bandsOf(plan.process).find((band) => band.step === payload.step)?.range;
    if (state.onHeat !== null && range && rangeStatus(celsius, range).is !== "below") state.onHeat = null;
  },
  correctableField: { field: "shown", label: "What the instrument showed", is: "temperature" },
  describe: (payload, plan, say, instrument) => {
    const celsius = payload.shown + payload.correction;
    const band = bandsOf(plan.process).find((band) => band.step === payload.step);
    const named = band ? `${band.name} reading` : "reading";
    const what = `${named}${instrument ? `, ${instrument}` : ""}${payload.correction === 0 ? "" : ` (shown ${say.tShown(payload.shown)}, corrected)`}${payload.untimed ? ", time not noted" : ""}`;
    if (!band) return { what, figure: say.t(celsius) };
    const at = rangeStatus(celsius, band.range).is;
    return {
      what,
      figure: say.t(celsius),
      remark: writeRangeStatus(celsius, band.name, band.range, say.temperature),
      tone: at === "inside" ? "inside" : at === "above" ? "hot" : "cool",
    };
  },
  columns: (payload, plan) => ({
    what: bandsOf(plan.process).find((band) => band.step === payload.step)?.name ?? "",
    wax_celsius: (payload.shown + payload.correction) / 100,
    shown_celsius: payload.shown / 100,
  }),
});
