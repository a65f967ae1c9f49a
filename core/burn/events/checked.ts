import { checkOf } from "../checks";
import { FLAMES, type Measures, SI, signsOf } from "../judge";
import { burningAt, burningIn, type CheckSeen, LEFT_ON_WALL, MUSHROOMS, SOOT, SOOT_AT } from "../state";
import { notThere, type TrialShapes, trialEvent, upcastTestCandleKey } from "./event-type";

/** Returns what is seen at one look. What was not looked at is left out. Lengths in micrometers, temperatures in hundredths of °C. */
const seen = ({ z }: TrialShapes) => {
  const um = (most: number, what: string) => z.number().int().min(0).max(most, `${what} is out of range.`);
  return z.object({
    poolUm: um(2_000_000, "A pool").optional(),
    reached: z.number().int().min(0).max(100).optional().describe("percent of the wall that the pool touches"),
    depthUm: um(500_000, "A pool").optional(),
    flame: z.enum(FLAMES).optional(),
    flameUm: um(1_000_000, "A flame").optional(),
    mushroom: z.enum(MUSHROOMS).optional(),
    soot: z.enum(SOOT).optional(),
    sootAt: z.enum(SOOT_AT).optional(),
    wall: z.number().int().min(-5_000).max(40_000, "This temperature is out of range.").optional(),
    onWall: z.enum(LEFT_ON_WALL).optional(),
    bottom: z.boolean().optional(),
    joined: z.boolean().optional(),
    elsewhere: z.boolean().optional(),
    edge: z.boolean().optional(),
    flames: z.array(z.enum(FLAMES)).min(2).max(9).optional().describe("the flame of each wick, in their order"),
    marks: z.record(z.string().max(40), z.number().min(0).max(10)).optional().describe("the workshop's own marks, from 0 to 10"),
    note: z.string().trim().max(500).optional(),
  });
};

/** Returns what was seen, in a few words. */
export function lookWords(item: Omit<CheckSeen, "id" | "at">, { len, t }: Measures = SI): string {
  return [
    item.poolUm === undefined ? "" : `pool ${len(item.poolUm)}`,
    item.reached === undefined ? "" : `${item.reached} % of the wall`,
    item.depthUm === undefined ? "" : `${len(item.depthUm)} deep`,
    item.flame === undefined ? "" : `flame ${item.flame}`,
    item.flameUm === undefined ? "" : `${len(item.flameUm)} high`,
    item.mushroom === undefined ? "" : item.mushroom === "none" ? "no mushroom" : `${item.mushroom} mushroom`,
    item.soot === undefined ? "" : item.soot === "none" ? "no soot" : `${item.soot} soot${item.sootAt ? ` (${item.sootAt})` : ""}`,
    item.wall === undefined ? "" : `wall ${t(item.wall)}`,
    item.onWall === undefined ? "" : item.onWall === "none" ? "wall clean" : `${item.onWall} wax on the wall`,
    item.bottom ? "bottom seen" : "",
    item.joined ? "flames joined" : "",
    item.elsewhere ? "burns beside the wick" : "",
    item.edge ? "hard edge" : "",
    item.flames ? `flames ${item.flames.join(", ")}` : "",
    ...Object.entries(item.marks ?? {}).map(([name, mark]) => `${name} ${mark} of 10`),
    item.note ? `“${item.note}”` : "",
  ]
    .filter(Boolean)
    .join(", ");
}

/** A look at a burning test candle. */
export const checked = trialEvent({
  kind: "checked",
  formerName: "looked",
  version: 2,
  payload: (shapes) =>
    seen(shapes)
      .extend({ testCandle: shapes.testCandleKey })
      .refine((item) => Object.keys(item).length > 1, { path: ["flame"], error: "Record at least one thing." }),
  upcast: (old) => {
    const { soot, ...rest } = upcastTestCandleKey(old);
    return soot === undefined ? rest : { ...rest, soot: soot === "grey" ? "gray" : soot };
  },
  validate: (state, payload, _plan, at) => {
    const missing = notThere(state, payload.testCandle);
    if (missing) return missing;
    const testCandle = state.testCandles[payload.testCandle];
    if (at ? burningAt(testCandle, at) : burningIn(testCandle)) return null;
    return burningIn(testCandle)
      ? { field: "at", message: "It was not lit yet at that time." }
      : { field: "testCandle", message: at && testCandle?.sessions.length ? "It was not burning then." : "It is not burning. Light it first." };
  },
  apply: (state, { id, happenedAt, payload: { testCandle, ...rest } }) => {
    burningAt(state.testCandles[testCandle], happenedAt)?.checks.push({ id, at: happenedAt, ...rest });
    state.presentAt = happenedAt;
  },
  correctableField: null,
  describe: ({ testCandle, ...rest }, _plan, say) => {
    const [sign] = signsOf(checkOf({ id: "", at: "", ...rest }, 240), say);
    return { what: `${testCandle}: ${lookWords(rest, say)}`, ...(sign ? { remark: sign.says, tone: "safety" as const } : {}) };
  },
  columns: ({ testCandle, ...rest }) => ({ what: `${testCandle}: ${lookWords(rest)}`, ...(rest.wall === undefined ? {} : { shown_celsius: rest.wall / 100 }) }),
});
