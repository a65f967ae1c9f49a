import { writeDuration } from "@hearth/core";

/** Returns a time ahead, no finer than one steps on it: "12 min", "40 s". */
export const durationInWords = (seconds: number): string => writeDuration(seconds < 90 ? Math.round(seconds) : Math.round(seconds / 60) * 60);
