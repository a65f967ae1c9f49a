import { bestTests, type Combination, isInferred } from "@hearth/core";
import fc from "fast-check";
import loadHighs from "highs";
import { expect, it } from "vitest";
import { modelOf, OPTIONS } from "./solve";

it("two tests that prove most cover as many as an integer program of the cover problem, solved by HiGHS", async () => {
  const highs = await loadHighs();
  const combination = fc.record({
    vessel: fc.constantFrom("tin", "jar", "cup"),
    wax: fc.constant("soy"),
    family: fc.constantFrom("soy", "palm"),
    wick: fc.constantFrom("flat 4", "flat 5"),
    wicks: fc.constant(1),
    scent: fc.constantFrom("rain", "moss"),
    loadPpm: fc.constantFrom(60_000, 68_000, 76_000, 84_000),
  });
  /** Maximize the covered, each at most the tests that cover it; at most two tests. Columns: the tests, then the covered. */
  const byProgram = (open: readonly Combination[]): number => {
    const n = open.length;
    const [starts, rows, amounts]: [number[], number[], number[]] = [[], [], []];
    for (let test = 0; test < n; test++) {
      starts.push(rows.length);
      open.forEach((other, row) => {
        if (test !== row && !isInferred(open[test] as Combination, other)) return;
        rows.push(row);
        amounts.push(-1);
      });
      rows.push(n);
      amounts.push(1);
    }
    for (let covered = 0; covered < n; covered++) {
      starts.push(rows.length);
      rows.push(covered);
      amounts.push(1);
    }
    starts.push(rows.length);
    const cost = [...new Array<number>(n).fill(0), ...new Array<number>(n).fill(1)];
    const program = { cost, low: cost.map(() => 0), high: cost.map(() => 1), have: [...new Array<number>(n).fill(0), 2], starts, rows, amounts };
    return highs.withModel(modelOf(highs, program as never), (model) => {
      model.options.set(OPTIONS);
      model.run();
      return Math.round(
        model
          .getSolution()
          .colValue.slice(n)
          .reduce((sum: number, value: number) => sum + value, 0),
      );
    });
  };
  fc.assert(
    fc.property(fc.array(combination, { minLength: 1, maxLength: 14 }), (open) => {
      expect(bestTests(open).covered).toHaveLength(byProgram(open));
    }),
    { numRuns: 60 },
  );
});
