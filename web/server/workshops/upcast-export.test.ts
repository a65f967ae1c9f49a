import { describe, expect, it } from "vitest";
import { upcastExportLine } from "./upcast-export";

const upcast = (table: string, row: object, schema = 22) => JSON.parse(upcastExportLine(JSON.stringify({ table, row }), schema));

describe("a line of an export from before tables and columns were renamed", () => {
  it.each([
    [
      "product",
      { body: "mould", body_id: "a", label_body: null, packing: null },
      "product",
      { container: "mold", container_id: "a", label_container: null, packaging: null },
    ],
    ["mould", { kind: "pillar mould", put_away: true }, "mold", { kind: "pillar mold", archived: true }],
    ["vessel", { state: "tester" }, "vessel", { state: "test jar" }],
    ["vessel", { state: "for sale" }, "vessel", { state: "for sale" }],
    ["note", { kind: "mould", gone: false }, "note", { kind: "mold", deleted: false }],
    [
      "merged",
      { kind: "mould", undone: false, moved: { colours: ["a"], bodies: ["b"] } },
      "item_alias",
      { kind: "mold", deleted: false, moved: { colors: ["a"], containers: ["b"] } },
    ],
    [
      "bin",
      { kind: "mould", rows: { moulds: [{ kind: "melt tray", putAway: true }], products: [{ body: "mould", bodyId: "a", packing: null }] } },
      "trash",
      { kind: "mold", rows: { molds: [{ kind: "melt tray", archived: true }], products: [{ container: "mold", containerId: "a", packaging: null }] } },
    ],
    ["packing", { gone: 2, undone: true }, "pack_run", { gone: 2, deleted: true }],
    ["burn_outcome", { tester: "A1", option: "A", body_id: "a" }, "burn_outcome", { test_candle: "A1", variant: "A", container_id: "a" }],
  ])("of %s %j has the names of now", (table, row, newTable, newRow) => {
    expect(upcast(table, row)).toEqual({ table: newTable, row: newRow });
    // A line that has them already is left as it is.
    expect(upcast(newTable, newRow, 23)).toEqual({ table: newTable, row: newRow });
  });
});
