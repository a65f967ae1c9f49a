import { LeftoversError, type Mixture, mixtureOf, type Programme } from "@hearth/core";
import type { Highs, ModelData } from "highs";

/** Returns a programme in the solver's own form: maximise, columns whole, compressed by columns. */
export function modelOf({ infinity, constants }: Highs, programme: Programme): ModelData {
  const [numCols, numRows] = [programme.cost.length, programme.have.length];
  return {
    numCols,
    numRows,
    sense: constants.objectiveSense.maximize,
    colCost: programme.cost,
    colLower: programme.low,
    colUpper: programme.high,
    rowLower: programme.have.map(() => -infinity),
    rowUpper: programme.have,
    matrix: { format: "csc", numCols, numRows, starts: programme.starts, indices: programme.rows, values: programme.amounts },
    integrality: programme.cost.map(() => 1 as const),
  };
}

/** Optimality is sought to the whole unit: a milligram, or a cent. */
export const OPTIONS = { output_flag: false, mip_rel_gap: 0, mip_abs_gap: 0.5 } as const;

/**
 * Solves an integer programme with HiGHS, and checks the answer in whole numbers. Where the time runs out before the
 * optimum is proved, the best mix found is given with the bound that none can pass. @throws LeftoversError if none is found.
 */
export function solveProgramme(highs: Highs, programme: Programme, seconds: number): Mixture {
  return highs.withModel(modelOf(highs, programme), (model) => {
    model.options.set({ ...OPTIONS, time_limit: seconds });
    model.run();
    const { colValue } = model.getSolution();
    if (colValue.length !== programme.cost.length || !colValue.every(Number.isFinite))
      throw new LeftoversError("No mix was found in the time there was. Ask for fewer products.");
    return mixtureOf(programme, colValue, Number(model.info.get("mip_dual_bound")));
  });
}
