import { describe, expect, it } from "vitest";
import { aBatch, at } from "../testing/batch";
import { answerDiagnose, diagnoseRequest } from "./diagnosis";
import { diagnosisOf, flawSeenAt } from "./of-batch";

const DAY = 1_440;

describe("the age at which something was seen or smelled", () => {
  it("is that of the first weak score or the flaw, however much later it is asked", () => {
    const batch = aBatch();
    batch.pour();
    const smell = (days: number, score: number) =>
      batch.add({ kind: "smelled", payload: { score, room: "" } }, { happenedAt: at(days * DAY), arrivedAt: at(days * DAY) });
    smell(1, 3);
    smell(14, 8);
    const { plan, state } = batch.state(at(21 * DAY));
    const when = flawSeenAt(state, "weak_cold_throw");
    expect(when).toBe(at(DAY));
    const { record, ranges } = diagnosisOf(plan, state, when ?? at(21 * DAY));
    expect(record.cure_days).toBeCloseTo(1, 1);
    const { causes } = answerDiagnose(diagnoseRequest.parse({ wax_family: "soy", defect: "weak_cold_throw", ranges, record: { ...record, cure_days: 1 } }));
    expect(causes.find((cause) => cause.key === "cure_days")).toMatchObject({ verdict: "supported", reason: expect.stringContaining("smelled after 1 day,") });
    // A score that is strong enough is no flaw.
    expect(flawSeenAt({ ...state, smells: state.smells.slice(1) }, "weak_cold_throw")).toBeNull();
    expect(flawSeenAt(state, "frosting")).toBeNull();
  });
});
