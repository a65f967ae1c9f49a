/** "swab": a blend in drops on swabs, shut in a bag for a day. "mixing": three parts of mineral oil to one of the oil, for gel. Common practice, no source. */
export const OIL_TEST_KINDS = ["swab", "mixing"] as const;
export type OilTestKind = (typeof OIL_TEST_KINDS)[number];
export const OIL_TEST_VERDICTS = ["good", "bad", "open"] as const;
export type OilTestVerdict = (typeof OIL_TEST_VERDICTS)[number];

interface Tested {
  kind: OilTestKind;
  parts: readonly { id: string }[];
  verdict: OilTestVerdict;
}

/** Returns the verdict of the newest test of these oils together, in whatever ratio; null if they were not tried. `tests` are newest first. */
export function blendVerdict(tests: readonly Tested[], oils: readonly string[]): OilTestVerdict | null {
  const wanted = [...oils].sort().join();
  const isSame = (test: Tested) =>
    test.parts
      .map((part) => part.id)
      .sort()
      .join() === wanted;
  return tests.find((test) => test.kind === "swab" && isSame(test))?.verdict ?? null;
}

/** Returns the verdict of the newest mixing test of an oil; null if it was not tried. `tests` are newest first. */
export const mixingVerdict = (tests: readonly Tested[], oil: string): OilTestVerdict | null =>
  tests.find((test) => test.kind === "mixing" && test.parts[0]?.id === oil)?.verdict ?? null;

/** Returns the ratio of a blend in its smallest whole numbers: 6 and 4 drops are 3 : 2. */
export function ratioOf(drops: readonly number[]): string {
  const common = (a: number, b: number): number => (b === 0 ? a : common(b, a % b));
  const by = drops.reduce((all, n) => common(all, n), 0) || 1;
  return drops.map((n) => n / by).join(" : ");
}
