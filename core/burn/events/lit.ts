import { TRIM_MM } from "../limits";
import { AIR, burningIn } from "../state";
import { notThere, trialEvent } from "./event-type";

/** A tester is lit: how long its wick was, and what the air did. Lengths in micrometres. */
export const lit = trialEvent({
  kind: "lit",
  version: 1,
  payload: ({ z, testCandleKey }) =>
    z.object({
      tester: testCandleKey,
      trimUm: z.number().int().min(0).max(100_000, "A wick of more than 10 cm is none.").nullable(),
      air: z.array(z.enum(AIR)).max(AIR.length),
      early: z.string().trim().max(300).default("").describe("why it was lit before its least cure"),
    }),
  validate: (state, one, plan, at) => {
    const there = notThere(state, one.tester);
    if (there) return there;
    if (!plan.testers.find((each) => each.key === one.tester)?.wick)
      return { field: "tester", message: "Nobody knows with which wick it was poured, so that a burn of it says nothing. Begin a trial that names the wick." };
    const now = state.testers[one.tester];
    if (now?.stopped) return { field: "tester", message: `It is not burned any more: ${now.stopped.why}.` };
    if (burningIn(now)) return { field: "tester", message: "It burns already. Put it out before it is lit again." };
    const last = now?.sessions.at(-1);
    if (at && last?.out && Date.parse(at) < Date.parse(last.out.at)) return { field: "at", message: "It was still burning then, in the session before." };
    return null;
  },
  apply: (state, { id, happenedAt, payload: one }) => {
    state.testers[one.tester]?.sessions.push({
      id,
      litAt: happenedAt,
      out: null,
      trimUm: one.trimUm,
      air: one.air,
      early: one.early,
      beforeMg: null,
      afterMg: null,
      looks: [],
    });
    state.presentAt = happenedAt;
  },
  correctableField: null,
  describe: (one, _plan, say) => {
    const mm = one.trimUm === null ? null : one.trimUm / 1_000;
    const wrong = mm !== null && (mm < TRIM_MM.low || mm > TRIM_MM.high);
    return {
      what: `${one.tester} lit${one.air.length > 0 ? `, ${one.air.join(", ")}` : ""}`,
      figure: one.trimUm === null ? "" : `wick ${say.len(one.trimUm)}`,
      ...(wrong
        ? { standing: mm < TRIM_MM.low ? "trimmed too short" : "not trimmed enough", tone: "hot" as const }
        : one.early
          ? { standing: `before its least cure: ${one.early}` }
          : {}),
    };
  },
  columns: (one) => ({ what: [one.tester, one.trimUm === null ? "" : `wick ${one.trimUm / 1_000} mm`, ...one.air, one.early].filter(Boolean).join("; ") }),
});
