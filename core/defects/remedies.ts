import { type Defect, defectOf } from "./defects";
import table from "./remedies.json" with { type: "json" };

export interface Remedy {
  /** How it looks, to tell it from its neighbors. */
  looks: string;
  /** What helps the candle that has it. */
  remedy: string;
}
const REMEDIES: Readonly<Record<string, Remedy>> = table;

/** Returns a flaw with how it looks and what helps, for the pages that tell of it. Common practice, no source. */
export function toldOf(id: string): (Defect & Remedy) | undefined {
  const [defect, remedy] = [defectOf(id), REMEDIES[id]];
  return defect && remedy && { ...defect, ...remedy };
}
