"use server";

import { mayOpen } from "@hearth/core";
import { z } from "zod";
import { type Found, find } from "@/server/find";
import { command, done, type Outcome } from "@/server/outcome";

/** What of the workshop has these letters in its name. */
export const findThings = async (place: unknown, text: string): Promise<Outcome<Found[]>> =>
  command(
    "bench",
    z.string().max(100),
    place,
    text,
    async (letters, { db, workshop, who }) =>
      done(letters.trim() === "" ? [] : (await find(db, workshop.id, letters)).filter(({ path }) => mayOpen(who.role, path))),
    "see",
  );
