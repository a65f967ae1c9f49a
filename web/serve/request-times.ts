import { processSingleton } from "../data/process-singleton";

/** Begins to measure a request; what it gives ends that, with the status of the answer. */
type Measure = (method: string, url: string) => ((status: number) => void) | null;

/** Returns who measures requests. The server asks it; the part of the program that keeps the figures puts itself in. */
export const requestTimes = (): { measure: Measure } => processSingleton("request times", () => ({ measure: () => null }));
