import { cautionsOnEmbed, cautionsOnVessel, type ShelfKind } from "@hearth/core";
import type { ShelfRow } from "@/server/inventory/shelf-page";
import type { Formats } from "@/ui/units";

export const PLURALS: Record<ShelfKind, { title: string; name: string }> = {
  wax: { title: "Waxes", name: "waxes" },
  fragrance: { title: "Fragrances", name: "fragrances" },
  dye: { title: "Dyes", name: "dyes" },
  additive: { title: "Additives", name: "additives" },
  wick: { title: "Wicks", name: "wicks" },
  vessel: { title: "Vessels", name: "vessels" },
  mold: { title: "Molds", name: "molds" },
  embed: { title: "Embeds", name: "embeds" },
  pack: { title: "Packing", name: "packing parts" },
  instrument: { title: "Instruments", name: "instruments" },
  person: { title: "People", name: "people" },
};

/** The text of each empty part of the shelf. */
export const TEACH: Record<ShelfKind, string> = {
  wax: "No wax yet. Add one with the maximum fragrance load from its supplier: amounts are checked against it.",
  fragrance: "No fragrance yet. Add one with its flash point and maximum load if you know them.",
  dye: "No dye yet. Add one with the weight of a drop, so that counted drops are taken from its stock.",
  additive: "No additive yet. Add stearic acid, polymers and the like, with the maximum from their supplier.",
  wick: "No wick yet. Add one with the diameters and waxes it suits.",
  vessel: "No vessel yet. Add a jar with its fill weight and inner measures, which are drawn to scale.",
  mold: "No mold yet. Add pillar molds, silicone molds and melt trays. They are reusable, so stock is not deducted.",
  embed: "No embed yet. Add shells, stones, sand or figures with the volume of one: it comes off the fill. Nothing that burns.",
  pack: "No packaging yet. Add boxes with their inner size, lids, labels and tape. Packing takes them from stock, and what runs low is on the shopping list.",
  instrument: "No instrument yet. Add your thermometer and scale, so that each reading says which one it is from.",
  person: "No people yet. Add who works here, so that each entry says who made it.",
};

type Fact = string | null | false | undefined;
const join = (...state: Fact[]) => state.filter(Boolean).join(", ");
const n = (row: ShelfRow, key: string) => (typeof row[key] === "number" ? (row[key] as number) : null);
const t = (row: ShelfRow, key: string) => (typeof row[key] === "string" ? (row[key] as string) : "");
/** A fact of a figure that may not be known. */
const of = (value: number | null, say: (value: number) => string): Fact => value !== null && say(value);

/** Returns the figures of a thing that its row in a list shows. */
export function factsOf(kind: ShelfKind, row: ShelfRow, units: Formats, nameOf: (id: string) => string): string {
  const known = of(n(row, "maxLoadPpm"), (ppm) => `takes up to ${units.percent(ppm)} of the wax`) || "maximum load not known";
  switch (kind) {
    case "wax": {
      const blend = row.blend as { id: string; share: number }[] | null;
      return join(
        t(row, "family") === "other" && t(row, "familyName"),
        known,
        of(n(row, "melt"), (melt) => `melts at ${units.t(melt)}`),
        of(n(row, "setDensity"), units.density),
        blend && `weighed as ${blend.map((part) => `${units.n(part.share, 4)} ${nameOf(part.id)}`).join(" + ")}`,
      );
    }
    case "fragrance":
      return join(
        known,
        of(n(row, "flashPoint"), (at) => `flash point ${units.t(at)}`),
        of(n(row, "density"), units.density),
        t(row, "strength") !== "middling" && t(row, "strength"),
        t(row, "purity") === "cut with a carrier" && (of(n(row, "purePpm"), (ppm) => `cut: ${units.percent(ppm)} oil`) || "cut with a carrier"),
        t(row, "ratings") && `strength: ${t(row, "ratings")}`,
        t(row, "bestLoads") && `best at ${t(row, "bestLoads")}`,
      );
    case "dye":
      return join(
        of(n(row, "eachMg"), (mg) => `${units.g(mg)} a ${t(row, "kind") === "liquid" ? "drop" : "piece"}`),
        t(row, "strength"),
        t(row, "colors") && `sets ${t(row, "colors")}`,
      );
    case "additive":
      return join(
        of(n(row, "usualPpm"), (ppm) => `usually ${units.percent(ppm)}`),
        of(n(row, "maxPpm"), (ppm) => `at most ${units.percent(ppm)} of the wax`),
        t(row, "does"),
      );
    case "wick": {
      const [from, to, families] = [n(row, "fromUm"), n(row, "toUm"), row.families as string[] | null];
      return join(from !== null && to !== null && `for ${units.len(from)} to ${units.len(to)}`, families && `in ${families.join(" or ")}`);
    }
    case "vessel": {
      const [working, stated] = [n(row, "workingFillMg") ?? 0, n(row, "statedFillMg") ?? 0];
      return join(
        `${units.g(working)} fill weight${working === stated ? "" : ` (${units.g(stated)} stated)`}`,
        t(row, "use") && t(row, "use") !== "candle" && `for ${t(row, "use") === "melts" ? "melts, no flame" : "tealights"}`,
        of(n(row, "cavities"), (many) => (many > 1 ? `${many} cavities` : "")),
        t(row, "material"),
        of(n(row, "testJars"), (many) => (many > 0 ? `${many} kept as test jars` : "")),
        n(row, "nominalUl") !== null && n(row, "waterMg") === null && row.sizeEstimated === true && "fill is an estimate: weigh water once",
        row.soldByWeight === true && "sold by weight: never filled below the net weight",
        row.sizeEstimated === true && "size estimated: measure it",
      );
    }
    case "mold":
      return join(
        t(row, "kind"),
        of(n(row, "cavities"), (many) => (many > 1 ? `${many} cavities` : "")),
        `${units.g(n(row, "fillMg") ?? 0)} each`,
      );
    case "embed":
      return join(t(row, "material"), `${units.volume((n(row, "volumeUl") ?? 0) / 1_000)} each`);
    case "pack": {
      const sides = ["lengthUm", "widthUm", "heightUm"].map((key) => n(row, key)).filter((um) => um !== null);
      return join(t(row, "kind"), sides.length > 0 && `inside ${sides.map((um) => units.len(um)).join(" × ")}`);
    }
    case "instrument": {
      if (t(row, "kind") !== "scale") {
        const correction = n(row, "correction") ?? 0;
        return `correction ${correction > 0 ? "+" : ""}${units.tDifference(correction)}`;
      }
      return join(
        of(n(row, "resolutionUg"), (ug) => `reads to ${units.resolution({ resolutionUg: ug })}`),
        of(n(row, "capacityMg"), (mg) => `takes up to ${units.bulk(mg)}`),
      );
    }
    case "person":
      return "";
  }
}

/** Returns what stands against filling a vessel, or laying an embed in. */
export const warnOf = (kind: ShelfKind, row: ShelfRow): string[] =>
  kind === "vessel"
    ? cautionsOnVessel({ material: t(row, "material"), state: t(row, "state"), use: t(row, "use"), leadTestedOn: t(row, "leadTestedOn") }).map(
        (caution) => caution.message,
      )
    : kind === "embed"
      ? cautionsOnEmbed({ name: t(row, "name"), material: t(row, "material") }).flatMap((caution) => (caution.weight === "stop" ? [caution.message] : []))
      : [];
