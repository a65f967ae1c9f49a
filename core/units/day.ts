import { z } from "zod";

/** The years of which a workshop can speak. */
const [MIN_YEAR, MAX_YEAR] = [1970, 2200];

/** The schema of a day, as ISO text, in a year from 1 on: the database has no year 0. */
export const isoDay = (message = "Give the day, like 2026-03-14.") =>
  z.iso.date(message).refine((text) => {
    const year = Number(text.slice(0, 4));
    // What is no day at all is told so already.
    return Number.isNaN(year) || (year >= MIN_YEAR && year <= MAX_YEAR);
  }, message);
