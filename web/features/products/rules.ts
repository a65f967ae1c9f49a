import { parseDuration, writeNumber } from "@hearth/core";
import { type FieldRule, orNothing, untouched } from "@/forms/fields";

/** Returns minutes that one piece takes; nothing where it is not counted. */
export const perPieceRule = (seconds: number | null): FieldRule<unknown> =>
  untouched<number | null>(
    orNothing({ initial: seconds === null ? "" : writeNumber(seconds / 60, 2), parse: (text: string) => parseDuration(text, "min", 86_400) }),
    seconds,
  ) as FieldRule<unknown>;
