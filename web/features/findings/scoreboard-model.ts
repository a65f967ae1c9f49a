import { countOf, type ScoredMean, type Share, type ThrowColumn } from "@hearth/core";
import type { OpenedBatch, OpenedFigure, UsedTemperature } from "@/server/findings/scoreboard";
import { formatShareRange } from "@/ui/logged";
import type { Formats } from "@/ui/units";

/** A likely range wider than this says nothing of a score from 0 to 10. */
const USEFUL_WIDTH = 6;

/** A figure of a line as it is shown: the figure, what stands below it, and the batches it opens to. */
export interface ShownFigure {
  figure: string;
  below: string;
}

export const shownTemperature = (units: Formats, used: UsedTemperature | null): ShownFigure | null =>
  used && {
    figure: units.t(used.middle * 100),
    below: used.batches > 1 ? units.range({ low: used.low * 100, high: used.high * 100 }) : "one batch",
  };
export const shownShare = (units: Formats, share: (Share & { jars: number; batches: number }) | null): ShownFigure | null =>
  share && {
    figure: `${units.n(share.share * 100, 0)} %`,
    below: `likely ${formatShareRange(units, share.low * 100, share.high * 100)} %, ${countOf(share.jars, "jar", "jars")}`,
  };
export const shownScore = (units: Formats, score: ScoredMean | null): ShownFigure | null =>
  score && {
    figure: units.n(score.mean, 1),
    below:
      score.low === null || score.high === null
        ? "one batch"
        : score.high - score.low > USEFUL_WIDTH
          ? `${countOf(score.batches, "batch", "batches")}: too few to tell`
          : `likely ${formatShareRange(units, score.low, score.high, 1)}`,
  };

export interface OpenedProps {
  wax: string;
  figure: OpenedFigure;
  batches: OpenedBatch[];
  total: number;
}

/** The card's two waxes, with what can be said of how their throw differs. */
export interface ComparedWaxes {
  a: string;
  b: string;
  differences: Record<ThrowColumn, { by: number; low: number; high: number } | null>;
}
