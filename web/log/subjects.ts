/** The subjects of the log by the part of their routes. Earlier versions knew only batches. */
export const SUBJECT_PATHS = { batch: "batches", trial: "trials", order: "orders" } as const;
export type SubjectName = keyof typeof SUBJECT_PATHS;
/** What can wait on a device: entries of a subject of the log, and notes with their photographs. */
export type WaitingName = SubjectName | "note";
