import shelf from "./shelf.json" with { type: "json" };
import yearsShelf from "./years/shelf.json" with { type: "json" };

/** Returns ids that are the same at every start, so that a bookmark to something of the demo still works. */
export const demoId = (group: number, n: number): string => `0190c0de-${group.toString(16).padStart(4, "0")}-7000-8000-${n.toString(16).padStart(12, "0")}`;

/** Returns the number within its group that an id of the demo was made from. */
export const demoNumber = (id: string): number => Number.parseInt(id.slice(-12), 16);

/** The groups of ids by kind of material. */
export const MATERIAL_GROUP = { wax: 2, fragrance: 3, vessel: 4, dye: 0x20, additive: 0x21, wick: 0x22, mold: 0x24, embed: 0x25, pack: 0x2c } as const;

/** The shelf of a workshop that is ten years old: the demo's, and what came and went before it. */
const YEARS_TABLES = {
  waxes: [...shelf.waxes, ...yearsShelf.waxes],
  fragrances: [...shelf.fragrances, ...yearsShelf.fragrances],
  vessels: [...shelf.vessels, ...yearsShelf.vessels],
  dyes: [...shelf.dyes, ...yearsShelf.dyes],
  additives: shelf.additives,
  wicks: [...shelf.wicks, ...yearsShelf.wicks],
  molds: [...shelf.molds, ...yearsShelf.molds],
  embeds: shelf.embeds,
  packs: [...shelf.packs, ...yearsShelf.packs],
};

type Row = { n: number; name: string };
/** Returns the rows of one kind under their fixed ids. */
const rows = <T extends Row, V>(group: number, list: readonly T[], whole: (row: T) => V): ({ id: string } & V)[] =>
  list.map((row) => ({ id: demoId(group, row.n), ...whole(row) }));
const withoutNumber = <T extends Row>({ n: _n, ...rest }: T) => rest;

/** Returns the materials of a shelf under their fixed ids, as their tables hold them. */
const materialsFrom = (tables: typeof YEARS_TABLES) => ({
  waxes: rows(MATERIAL_GROUP.wax, tables.waxes, (row) => ({
    ...withoutNumber(row),
    maxLoadPpm: row.maxLoadPpm as number | null,
    blend: "blend" in row && row.blend ? row.blend.map((part) => ({ id: demoId(MATERIAL_GROUP.wax, part.n), share: part.share })) : null,
  })),
  fragrances: rows(MATERIAL_GROUP.fragrance, tables.fragrances, (row) => ({ ...withoutNumber(row), kind: row.kind as "fragrance" | "essential oil" })),
  vessels: rows(MATERIAL_GROUP.vessel, tables.vessels, (row) => ({
    ...withoutNumber(row),
    state: ("state" in row && row.state ? row.state : "for sale") as "for sale" | "test jar",
    shape: ("shape" in row && row.shape ? row.shape : "straight") as "straight" | "bowl",
    waterTo: "line" as const,
  })),
  dyes: rows(MATERIAL_GROUP.dye, tables.dyes, (row) => ({ ...withoutNumber(row), kind: row.kind as "liquid" | "chip" })),
  additives: rows(MATERIAL_GROUP.additive, tables.additives, withoutNumber),
  wicks: rows(MATERIAL_GROUP.wick, tables.wicks, withoutNumber),
  molds: rows(MATERIAL_GROUP.mold, tables.molds, withoutNumber),
  embeds: rows(MATERIAL_GROUP.embed, tables.embeds, withoutNumber),
  packs: rows(MATERIAL_GROUP.pack, tables.packs, withoutNumber),
});

export type DemoMaterials = ReturnType<typeof materialsFrom>;
export const DEMO_MATERIALS: DemoMaterials = materialsFrom(shelf);
export const YEARS_MATERIALS: DemoMaterials = materialsFrom(YEARS_TABLES);

/** What the demo has of each material today; costs in cents, amounts in milligrams or pieces. */
export const LOTS = shelf.lots.map(({ kind, n, ...lot }, index) => ({
  ...lot,
  id: demoId(0x23, index + 1),
  kind: kind as Exclude<keyof typeof MATERIAL_GROUP, "mold">,
  materialId: demoId(MATERIAL_GROUP[kind as keyof typeof MATERIAL_GROUP], n),
}));
