import { type Density, weightOf } from "../units/density";
import type { Milligrams } from "../units/mass";
import { DEFAULT_WAX_DENSITY } from "./parts";

/** What is laid into a clear candle, or fills a part of it: which, how many to a piece, and the volume of one in microliters. */
export interface PlannedEmbed {
  embedId: string;
  name: string;
  count: number;
  volumeUl: number;
}

/** What a product takes of the shelf to be laid in: how many of each to a piece. */
export type EmbedChoice = { id: string; count: number };

/** So many kinds at most are laid into one candle. */
export const MAX_EMBEDS = 8;

/** Returns the weight of wax whose place is taken by what is laid in. A microliter is a cubic millimeter. Density in micrograms a milliliter. */
export const displacedMg = (embeds: readonly Pick<PlannedEmbed, "count" | "volumeUl">[] | undefined, density: Density = DEFAULT_WAX_DENSITY): Milligrams =>
  Math.round(
    weightOf(
      (embeds ?? []).reduce((sum, embed) => sum + embed.count * embed.volumeUl, 0),
      density,
    ),
  );

/** Returns what is laid in as a plan freezes it; what is no longer on the shelf is left out. */
export const embedsOf = (
  choices: readonly EmbedChoice[] | null | undefined,
  shelf: readonly { id: string; name: string; volumeUl: number }[],
): PlannedEmbed[] =>
  (choices ?? []).flatMap(({ id, count }) => {
    const embed = shelf.find((item) => item.id === id);
    return embed ? [{ embedId: id, name: embed.name, count, volumeUl: embed.volumeUl }] : [];
  });

/** "3 × small shell, 1 × sand". */
export const writeEmbeds = (embeds: readonly Pick<PlannedEmbed, "name" | "count">[]): string =>
  embeds.map((embed) => `${embed.count} × ${embed.name}`).join(", ");
