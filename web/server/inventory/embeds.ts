import type { EmbedChoice } from "@hearth/core";
import { and, eq, inArray } from "drizzle-orm";
import type { Database, Transaction } from "@/data/client";
import { embeds } from "@/data/tables/shelf";

/** Returns what of these choices is on the shelf. */
export const readEmbeds = (db: Database | Transaction, workshopId: string, choices: readonly EmbedChoice[]) =>
  db
    .select()
    .from(embeds)
    .where(
      and(
        eq(embeds.workshopId, workshopId),
        inArray(
          embeds.id,
          choices.map((embed) => embed.id),
        ),
      ),
    );
