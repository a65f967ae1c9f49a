import { SECONDS, writeDuration } from "../../units/duration";
import { actOf, atWork, batchKind, noSuchAct } from "./kind";

/** Stirred, for so many seconds. Several of one act add up. */
export const stirred = batchKind({
  kind: "stirred",
  version: 2,
  payload: ({ z }) =>
    z.object({
      act: z.string().max(60).nullable(),
      seconds: z.number().int().min(1, "Stirring takes more than no time.").max(SECONDS.h),
      hard: z.boolean().optional().describe("so that air went in"),
    }),
  upcast: (old) => ({ act: "stir", ...old }),
  refuse: (facts, payload, plan) => atWork(facts) ?? (payload.act === null || actOf(plan, payload.act) ? null : noSuchAct),
  apply: (facts, { payload, happenedAt }) => {
    const key = payload.act ?? "stir";
    facts.did[key] = {
      at: happenedAt,
      seconds: (facts.did[key]?.seconds ?? 0) + payload.seconds,
      ...(payload.hard === undefined ? {} : { hard: payload.hard }),
    };
  },
  told: (payload) => ({
    what: payload.hard === undefined ? "stirred" : payload.hard ? "stirred hard" : "stirred gently",
    figure: writeDuration(payload.seconds),
  }),
  columns: (payload) => ({ seconds: payload.seconds }),
});
