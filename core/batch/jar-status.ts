/** What can become of a jar: on the rack until it is something else. */
export const JAR_STATUSES = ["rack", "packed", "testing", "second", "sold", "given", "melted", "broken"] as const;
/** Statuses that a maker sets by hand; packing and selling set the others. */
export const JAR_STATUSES_BY_HAND = ["rack", "testing", "second", "sold", "given", "melted", "broken"] as const;
export type JarStatus = (typeof JAR_STATUSES)[number];
export const JAR_STATUS_WORDS: Record<JarStatus, string> = {
  rack: "on the rack",
  packed: "packed",
  testing: "test candle",
  second: "seconds",
  sold: "sold",
  given: "given away",
  melted: "remelted",
  broken: "broken",
};
