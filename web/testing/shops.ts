import { type ScheduleRequest, scheduleRequest } from "@hearth/core";
import type { Highs, ModelData } from "highs";

/** Fisher and Thompson's job shop of six jobs (1963), as (machine, duration); from memory. Its least makespan is 55. */
const FT06 = [
  "2 1 0 3 1 6 3 7 5 3 4 6",
  "1 8 2 5 4 10 5 10 0 10 3 4",
  "2 5 3 4 5 8 0 9 1 1 4 7",
  "1 5 0 5 2 5 3 3 4 8 5 9",
  "2 9 1 3 4 5 5 4 0 3 3 1",
  "1 3 3 3 5 9 0 10 4 4 2 1",
];
export const ft06 = (): ScheduleRequest =>
  scheduleRequest.parse({
    resources: Object.fromEntries(Array.from({ length: 6 }, (_, m) => [`m${m}`, 1])),
    jobs: FT06.map((row, j) => {
      const numbers = row.split(" ").map(Number);
      return {
        id: `j${j}`,
        steps: Array.from({ length: 6 }, (_, k) => ({ id: `s${k}`, minutes: numbers[2 * k + 1], needs: { [`m${numbers[2 * k]}`]: 1 } })),
      };
    }),
    seconds: 30,
  });

/** Returns a day of pots: one pair of hands, two burners, four pitchers; invented, the same each time. */
export function dayOf(many: number, seed = 7): ScheduleRequest {
  let state = seed;
  const between = (low: number, high: number) => {
    state = (state * 1_103_515_245 + 12_345) & 0x7fffffff;
    return low + (state % (high - low + 1));
  };
  return scheduleRequest.parse({
    resources: { hands: 1, burner: 2, pitcher: 4 },
    seconds: 10,
    jobs: Array.from({ length: many }, (_, n) => ({
      id: `pot ${n + 1}`,
      steps: [
        { id: "weigh", minutes: between(5, 9), needs: { hands: 1, pitcher: 1 }, keeps: ["pitcher"], wait: { min: 0, max: 60 } },
        { id: "melt", minutes: between(16, 26), needs: { burner: 1, pitcher: 1 }, keeps: ["burner", "pitcher"], wait: { min: 0, max: between(6, 12) } },
        { id: "add", minutes: between(3, 5), needs: { hands: 1, pitcher: 1 }, keeps: ["pitcher"], wait: { min: 0, max: 0 } },
        { id: "cool", minutes: between(10, 20), needs: { pitcher: 1 }, keeps: ["pitcher"], wait: { min: 0, max: between(5, 12) } },
        { id: "pour", minutes: between(5, 9), needs: { hands: 1, pitcher: 1 }, wait: { min: 40 } },
        ...(n % 3 === 0 ? [{ id: "top up", minutes: 3, needs: { hands: 1 }, wait: { min: 20 } }] : []),
        { id: "clear", minutes: between(2, 4), needs: { hands: 1 } },
      ],
    })),
  });
}

interface Row {
  at: number[];
  by: number[];
  low: number;
  high: number;
}

/** Returns the same wish as a mixed-integer programme, written straight from the request: starts, who goes first, and which burner or pitcher each takes. */
export function programmeOf(request: ScheduleRequest, horizon: number, { constants, infinity }: Highs): ModelData {
  const starts: number[] = [];
  const [lower, upper, whole]: [number[], number[], number[]] = [[], [], []];
  const rows: Row[] = [];
  const column = (low: number, high: number, isWhole: boolean): number => {
    lower.push(low);
    upper.push(high);
    whole.push(isWhole ? 1 : 0);
    return lower.length - 1;
  };
  const end = column(0, horizon, false);
  const uses: { resource: string; job: number; a: number; aOff: number; b: number; bOff: number }[] = [];
  for (const [j, job] of request.jobs.entries()) {
    const mine = job.steps.map(() => column(job.release, horizon, false));
    starts.push(...mine);
    for (const [k, step] of job.steps.entries()) {
      const here = mine[k] as number;
      const next = mine[k + 1];
      if (next === undefined) rows.push({ at: [end, here], by: [1, -1], low: step.minutes, high: infinity });
      else
        rows.push({ at: [next, here], by: [1, -1], low: step.minutes + step.wait.min, high: step.wait.max == null ? infinity : step.minutes + step.wait.max });
      for (const resource of Object.keys(step.needs)) {
        const kept = next !== undefined && step.keeps.includes(resource);
        uses.push({ resource, job: j, a: here, aOff: 0, b: kept ? (next as number) : here, bOff: kept ? 0 : step.minutes });
      }
    }
  }
  for (const [resource, cap] of Object.entries(request.resources)) {
    const mine = uses.filter((use) => use.resource === resource);
    const pieces = mine.map(() => (cap > 1 ? Array.from({ length: cap }, () => column(0, 1, true)) : []));
    for (const piece of pieces) if (cap > 1) rows.push({ at: piece, by: piece.map(() => 1), low: 1, high: 1 });
    for (let i = 0; i < mine.length; i++)
      for (let k = i + 1; k < mine.length; k++) {
        const [u, v] = [mine[i], mine[k]] as [(typeof mine)[number], (typeof mine)[number]];
        if (u.job === v.job) continue;
        const [uFirst, vFirst] = [column(0, 1, true), column(0, 1, true)];
        // Whoever goes first has ended before the other begins.
        for (const [first, item, other] of [
          [uFirst, u, v],
          [vFirst, v, u],
        ] as const)
          rows.push({ at: [other.a, item.b, first], by: [1, -1, -horizon], low: item.bOff - other.aOff - horizon, high: infinity });
        if (cap === 1) rows.push({ at: [uFirst, vFirst], by: [1, 1], low: 1, high: 1 });
        else
          for (let piece = 0; piece < cap; piece++)
            rows.push({ at: [uFirst, vFirst, pieces[i]?.[piece] as number, pieces[k]?.[piece] as number], by: [1, 1, -1, -1], low: -1, high: infinity });
      }
  }
  const columns: [number, number][][] = lower.map(() => []);
  for (const [r, row] of rows.entries()) for (const [n, at] of row.at.entries()) columns[at]?.push([r, row.by[n] as number]);
  const firsts = [0];
  for (const column of columns) firsts.push((firsts.at(-1) as number) + column.length);
  return {
    numCols: lower.length,
    numRows: rows.length,
    sense: constants.objectiveSense.minimize,
    colCost: lower.map((_, index) => (index === end ? 1 : 0)),
    colLower: lower,
    colUpper: upper,
    rowLower: rows.map((row) => row.low),
    rowUpper: rows.map((row) => row.high),
    matrix: {
      format: "csc",
      numCols: lower.length,
      numRows: rows.length,
      starts: firsts,
      indices: columns.flatMap((column) => column.map(([r]) => r)),
      values: columns.flatMap((column) => column.map(([, by]) => by)),
    },
    integrality: whole as ModelData["integrality"],
  };
}
