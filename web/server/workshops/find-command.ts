"use server";

import { mayOpen, ok, type Result } from "@hearth/core";
import { z } from "zod";
import { command } from "@/server/http/command";
import { type Found, find } from "./find";

/** Returns what in the workshop has these letters in its name. */
export const findThings = async (workshopRef: unknown, text: string): Promise<Result<Found[]>> =>
  command(
    "bench",
    z.string().max(100),
    workshopRef,
    text,
    async (letters, { db, workshop, who }) =>
      ok(letters.trim() === "" ? [] : (await find(db, workshop.id, letters)).filter(({ path }) => mayOpen(who.role, path))),
    "see",
  );
