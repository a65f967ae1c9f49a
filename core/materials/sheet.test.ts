import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { z } from "zod";
import { valueForFamily } from "../recipe/by-family";
import { anId } from "../testing/batch";
import { METRIC, type UnitChoice, US_CUSTOMARY } from "../units/measured-text";
import { cautionsOnMaterial, cautionsOnVessel, notToBeFilled } from "./cautions";
import { type FieldContext, readField, WAX_FAMILIES, writeField } from "./fields";
import { SHELF_FIELDS, SHELF_KINDS, shelfFaults } from "./kinds";
import { shelfValues } from "./schema";
import { decodeSheet, guessMapping, readSheet, separatorOf, writeSheet } from "./sheet";

const soy = { id: anId(), name: "soft soy", family: "soy" };
const hard = { id: anId(), name: "hard paraffin", family: "paraffin" };
const waxes = [soy, hard];
const SYSTEMS: UnitChoice[] = [METRIC, US_CUSTOMARY];
const utf8 = (bytes: Uint8Array) => {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
};
const take = (
  kind: "wax" | "fragrance" | "vessel",
  heads: string[],
  rows: string[][],
  kept: ({ id: string; name: string } & Record<string, unknown>)[] = [],
  decimalComma = false,
) => readSheet(kind, { heads, rows, decimalComma }, guessMapping(kind, heads), kept, { waxes });

describe("a field of the shelf", () => {
  /** Values that each type of field can hold. */
  const value = (kind: (typeof SHELF_KINDS)[number], key: string): fc.Arbitrary<unknown> => {
    const field = SHELF_FIELDS[kind].find((shelfField) => shelfField.key === key);
    if (!field) throw new Error(`${kind} has no ${key}`);
    const { type } = field;
    switch (type.is) {
      case "name":
      case "words":
        return fc.constantFrom("plain", "with “quotes”, commas; and\nlines", "=1+1", "-5 °C batch", "'=tea", "@home");
      case "choice":
        return fc.constantFrom(...type.of.map((item) => item.value));
      case "yes":
        return fc.boolean();
      case "mass":
        return fc.integer({ min: type.least, max: type.most });
      case "percent":
        return fc.integer({ min: Math.ceil(type.least * 10_000), max: type.most * 10_000 });
      case "temperature":
        return fc.integer({ min: -2_000, max: 16_000 });
      case "difference":
        return fc.integer({ min: -2_000, max: 2_000 });
      case "range":
        return fc.tuple(fc.integer({ min: 2_000, max: 9_000 }), fc.integer({ min: 0, max: 2_000 })).map(([low, span]) => ({ low, high: low + span }));
      case "duration":
        return fc.integer({ min: 0, max: 9_000 }).map((quarters) => quarters * 900);
      case "density":
        return fc.integer({ min: 500_000, max: 1_500_000 });
      case "length":
        return fc.integer({ min: type.least * 1_000, max: type.most * 1_000 });
      case "families":
        return fc.uniqueArray(fc.constantFrom(...WAX_FAMILIES), { minLength: 1, maxLength: 4 });
      case "money":
        return fc.integer({ min: 0, max: 1_000_000 });
      case "day":
        return fc.constantFrom("2026-03-14", "2024-02-29", "1999-12-31");
      case "volume":
        return fc.integer({ min: 1_000, max: type.most });
      case "ref":
      case "amount":
        throw new Error(`Nothing of the shelf holds ${type.is}.`);
      case "step":
        // Ounce steps too: 0.01 oz is 283 495 µg.
        return fc.constantFrom(1_000, 10_000, 100_000, 1_000_000, 5_000_000, 283_495.23125, 2_834_952.3125, 28_349_523.125);
      case "count":
        return fc.integer({ min: type.least, max: type.most });
      case "blend":
        return fc.constantFrom(
          [
            { id: soy.id, share: 75 },
            { id: hard.id, share: 25 },
          ],
          [
            { id: soy.id, share: 66.5 },
            { id: hard.id, share: 33.5 },
          ],
        );
    }
  };

  it.each(SYSTEMS)("comes back from a file as it went, for every kind and every field, in $mass, °$temperature and $length", (units) => {
    const context: FieldContext = { ...units, waxes };
    for (const kind of SHELF_KINDS) {
      const { shape } = shelfValues(kind) as unknown as z.ZodObject<Record<string, z.ZodType>>;
      for (const field of SHELF_FIELDS[kind]) {
        fc.assert(
          fc.property(value(kind, field.key), (item) => {
            expect(readField(field, writeField(field, item, context, true), { ...context, bare: true })).toEqual({ ok: true, value: item });
            // What is read is what may be kept.
            expect(shape[field.key]?.safeParse(item), `${kind} ${field.key}`).toMatchObject({ success: true, data: item });
          }),
          { numRuns: 40 },
        );
      }
    }
  });

  it("reads back as it was typed, in ounces and °F as in grams and °C", () => {
    const back = (kind: (typeof SHELF_KINDS)[number], key: string, text: string, units: { mass: "g" | "oz"; temperature: "C" | "F" }) => {
      const field = SHELF_FIELDS[kind].find((shelfField) => shelfField.key === key) as (typeof SHELF_FIELDS)["wax"][number];
      const context = { ...units, waxes };
      const read = readField(field, text, context);
      return read.ok ? writeField(field, read.value, context) : read.message;
    };
    const us = { mass: "oz", temperature: "F" } as const;
    const metric = { mass: "g", temperature: "C" } as const;
    expect(back("wax", "ceiling", "174", us)).toBe("174 °F");
    expect(back("wax", "ceiling", "200", us)).toBe("200 °F");
    expect(back("instrument", "resolutionUg", "0.01", us)).toBe("0.01 oz");
    expect(back("vessel", "workingFillMg", "8.125", us)).toBe("8.125 oz");
    fc.assert(
      fc.property(fc.integer({ min: 60, max: 230 }), fc.nat(40), fc.integer({ min: 10, max: 9_000 }), fc.boolean(), (low, span, amount, american) => {
        const units = american ? us : metric;
        const [a, b] = american ? [low, low + span] : [low / 2, (low + span) / 2];
        expect(back("wax", "pourRange", `${a}–${b}`, units)).toBe(`${a}–${b}`);
        const typed = american ? String(amount / 1_000) : String(amount / 10);
        expect(back("vessel", "statedFillMg", typed, units)).toBe(`${typed} ${units.mass}`);
        expect(back("instrument", "resolutionUg", String(((amount % 200) + 5) / 100), units)).toBe(`${((amount % 200) + 5) / 100} ${units.mass}`);
      }),
    );
  });

  it("takes a number without a unit for the unit that the field shows: 14 in a cure is days, in a file hours", () => {
    const cure = SHELF_FIELDS.wax.find((shelfField) => shelfField.key === "leastCureSeconds") as (typeof SHELF_FIELDS)["wax"][number];
    expect(readField(cure, "14", { mass: "g", temperature: "C", waxes })).toEqual({ ok: true, value: 14 * 86_400 });
    expect(readField(cure, "14", { mass: "g", temperature: "C", waxes, bare: true })).toEqual({ ok: true, value: 14 * 3_600 });
  });

  it("says what is wrong with what was typed", () => {
    const field = (kind: (typeof SHELF_KINDS)[number], key: string) =>
      SHELF_FIELDS[kind].find((shelfField) => shelfField.key === key) as (typeof SHELF_FIELDS)["wax"][number];
    const context: FieldContext = { mass: "g", temperature: "F", waxes: [...waxes, { id: anId(), name: "mixed", blend: [] }] };
    const fault = (kind: (typeof SHELF_KINDS)[number], key: string, text: string) => {
      const read = readField(field(kind, key), text, context);
      return read.ok ? "taken" : read.message;
    };
    expect(fault("wax", "blend", "75 soft soy + 25 nothing")).toMatch(/no wax “nothing”/);
    expect(fault("wax", "blend", "75 soft soy")).toMatch(/at least two/);
    expect(fault("wax", "blend", "1 soft soy + 1 mixed")).toMatch(/a blend itself/);
    expect(fault("wax", "family", "butter")).toMatch(/none of soy/);
    expect(fault("fragrance", "families", "soy, butter")).toMatch(/“butter” is no family/);
    expect(fault("fragrance", "flashPoint", "900F")).toMatch(/hotter than/);
    expect(readField(field("fragrance", "flashPoint"), "392", context)).toEqual({ ok: true, value: 20_000 });
    expect(fault("vessel", "wicks", "4")).toMatch(/more than is possible/);
  });

  it("is checked with the others of its row", () => {
    const cup = { workingFillMg: 12_500, statedFillMg: 14_000, soldByWeight: true, heightUm: 17_000, headspaceUm: 3_000 };
    expect(shelfFaults("vessel", cup).workingFillMg).toMatch(/cannot be below the net weight/);
    expect(shelfFaults("vessel", { ...cup, soldByWeight: false, headspaceUm: 17_000 })).toEqual({ headspaceUm: expect.stringContaining("no room") });
    expect(shelfFaults("wick", { fromUm: 80_000, toUm: 60_000 })).toHaveProperty("toUm");
    expect(shelfFaults("wax", { leastCureSeconds: 10, cureSeconds: 5 })).toHaveProperty("cureSeconds");
    expect(shelfFaults("fragrance", { maxLoadPpm: 10, usualLoadPpm: 11 })).toHaveProperty("usualLoadPpm");
    expect(shelfFaults("additive", { maxPpm: 10, usualPpm: 11 })).toHaveProperty("usualPpm");
    expect(shelfValues("wax").safeParse({ name: "x", family: "soy" })).toMatchObject({ success: true, data: { maxLoadPpm: null, remarks: "", blend: null } });
  });

  it("finds the color a dye sets to in a family", () => {
    expect(valueForFamily("soy: pale rose; paraffin: brick red", "paraffin")).toBe("brick red");
    expect(valueForFamily("soy: pale rose", "palm")).toBeNull();
  });
});

describe("files as spreadsheets write them", () => {
  it("are decoded from UTF-8 with a mark, from UTF-16 and from Windows-1252", () => {
    const bytes = (...codes: number[]) => new Uint8Array(codes);
    expect(decodeSheet(bytes(0xef, 0xbb, 0xbf, 0x61, 0xc3, 0xa9), utf8)).toBe("aé");
    expect(decodeSheet(bytes(0xff, 0xfe, 0x61, 0x00, 0x13, 0x20), utf8)).toBe("a–");
    // é, en dash, euro sign and curly quote in Windows-1252 (the WHATWG Encoding Standard's index, from memory).
    expect(decodeSheet(bytes(0x61, 0xe9, 0x96, 0x80, 0x93), utf8)).toBe("aé–€“");
  });

  it("have their separator found, quotes and line breaks in heads aside", () => {
    expect(separatorOf("name;family\na,b;c")).toBe(";");
    expect(separatorOf("name,family")).toBe(",");
    expect(separatorOf("name\tfamily")).toBe("\t");
    expect(separatorOf('"name; of\nit",family\n1;2;3')).toBe(",");
  });

  it("may use decimal commas, their own head names, a dash for paraffin-soy, and hold blank rows", () => {
    const rows = take(
      "wax",
      ["Name", "Family", "Maximum fragrance load · % of the wax", "density_set_g_per_ml"],
      [
        ["dawn", "Paraffin - Soy", "12,5", "1,250"],
        ["", " ", "", ""],
        ["dusk", "soy", "", ""],
      ],
      [],
      true,
    );
    expect(rows.map((row) => [row.line, row.outcome.is])).toEqual([
      [2, "new"],
      [4, "new"],
    ]);
    expect(rows[0]?.values).toMatchObject({ family: "paraffin–soy", maxLoadPpm: 125_000, setDensity: 1_250_000 });
    expect(rows[1]?.values).toMatchObject({ maxLoadPpm: null, setDensity: null });
    // With commas between cells, 1,250 is ambiguous and is not guessed at.
    expect(take("wax", ["name", "family", "density_set_g_per_ml"], [["dawn", "soy", "1,250"]])[0]?.outcome).toMatchObject({
      is: "refused",
      why: [expect.stringContaining("can be read as")],
    });
  });

  it("tell what becomes of each row: new, changed, the same, refused and why", () => {
    const kept = [
      { ...shelfRow("soft soy", 100_000), id: soy.id },
      { ...shelfRow("plain", null), id: anId() },
    ];
    const outcomes = take(
      "wax",
      ["name", "family", "largest_load_percent"],
      [
        ["soft soy", "soy", "9"],
        ["Plain", "soy", ""],
        ["fresh", "palm", "7"],
        ["fresh", "palm", "8"],
        ["", "soy", "8"],
        ["odd", "butter", "800"],
        ["spilt", "soy", "8", "extra"],
      ],
      kept,
    );
    expect(outcomes.map((outcome) => [outcome.line, outcome.outcome.is, outcome.id])).toEqual([
      [2, "changed", soy.id],
      [3, "changed", kept[1]?.id],
      [4, "new", null],
      [5, "refused", null],
      [6, "refused", null],
      [7, "refused", null],
      [8, "refused", null],
    ]);
    expect(outcomes[0]?.outcome).toMatchObject({ what: ["Maximum fragrance load · % of the wax: 10 → 9"] });
    expect(outcomes[1]?.outcome).toMatchObject({ what: ["Name: plain → Plain"] });
    expect(outcomes[3]?.outcome).toMatchObject({ why: ["“fresh” stands in row 4 already."] });
    expect(outcomes[5]?.outcome).toMatchObject({ why: [expect.stringContaining("“butter” is none of"), expect.stringContaining("800 % cannot be")] });
    expect(outcomes[6]?.outcome).toMatchObject({ why: [expect.stringContaining("4 cells")] });
    expect(take("wax", ["name", "family", "largest_load_percent"], [["soft soy", "soy", "10"]], kept)[0]?.outcome.is).toBe("same");
  });

  it("leave what no column feeds as it is, and say which column is missing for a new row", () => {
    const kept = [{ ...shelfRow("soft soy", 100_000), id: soy.id, remarks: "mine" }];
    expect(take("wax", ["name", "melts_at_c"], [["soft soy", "49"]], kept)[0]).toMatchObject({
      outcome: { is: "changed" },
      values: { remarks: "mine", maxLoadPpm: 100_000, melt: 4_900 },
    });
    expect(take("vessel", ["name"], [["cup"]])[0]?.outcome).toMatchObject({
      is: "refused",
      why: expect.arrayContaining([expect.stringContaining("Enter the weight of water to the line, the volume it is sold as")]),
    });
  });

  it("have columns in the units of the workshop, and read those of the other system, of earlier files and of none alike", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9_999 }), fc.constantFrom(...SYSTEMS), fc.constantFrom(...SYSTEMS), (centi, from, to) => {
        const kept = [{ ...shelfRow("soft soy", 100_000), id: soy.id, melt: centi, low: centi * 100 + 1, setDensity: 900_000 + centi }];
        const sheet = writeSheet("wax", kept, { waxes, units: from });
        const head = sheet.heads.join(" ");
        expect(head).toMatch(from.temperature === "C" ? /melts_at_c\b/ : /melts_at_f\b/);
        expect(head).toMatch(from.mass === "g" ? /low_below_g\b.*density_set_g_per_ml|density_set_g_per_ml.*low_below_g\b/ : /specific_gravity_set/);
        expect(readSheet("wax", sheet, guessMapping("wax", sheet.heads), kept, { waxes, units: to })[0]?.outcome.is).toBe("same");
      }),
    );
    // A head that says no unit is in the workshop's own.
    const cell = (head: string, units: (typeof SYSTEMS)[number]) => {
      const sheet = { heads: ["name", head], rows: [["soft soy", "120"]] };
      return readSheet("wax", sheet, guessMapping("wax", sheet.heads), [{ ...shelfRow("soft soy", null), id: soy.id }], { waxes, units })[0]?.values.melt;
    };
    expect(SYSTEMS.map((units) => cell("Melts at", units))).toEqual([12_000, 4_889]);
    expect(SYSTEMS.map((units) => cell("melts_at_c", units))).toEqual([12_000, 12_000]);
    expect(SYSTEMS.map((units) => cell("melts_at_f", units))).toEqual([4_889, 4_889]);
  });

  it("read what export wrote to be the same, defused cells and all", () => {
    const kept = [{ ...shelfRow("=2+3", 100_000), id: anId(), remarks: "-5 °C\nshed, “north”" }];
    const { heads, rows } = writeSheet("wax", kept, { waxes });
    const defused = rows.map((row) => row.map((cell) => (/^[=+\-@]/.test(cell) ? `'${cell}` : cell)));
    expect(defused[0]?.[0]).toBe("'=2+3");
    expect(take("wax", heads, defused, kept)[0]?.outcome.is).toBe("same");
  });
});

/** A wax as the shelf keeps it. */
function shelfRow(name: string, maxLoadPpm: number | null) {
  return {
    name,
    ...Object.fromEntries(SHELF_FIELDS.wax.slice(1).map((field) => [field.key, field.type.is === "words" ? "" : null])),
    family: "soy",
    maxLoadPpm,
  };
}

describe("cautions on entry", () => {
  it("stop vessels of unfit material, cracked or lead-suspect, and keep test candles apart", () => {
    for (const [material, state] of [
      ["plastic", "for sale"],
      ["wood", "for sale"],
      ["ceramic", "may hold lead"],
      ["heat-safe glass", "cracked"],
    ] as const)
      expect(notToBeFilled({ name: "it", material, state })).toMatch(/^it: /);
    expect(notToBeFilled({ name: "it", material: "metal", state: "test jar" })).toBeNull();
    // Plastic holds melts, without a wick; and tealights where their supplier rates the cup for it. A lead test that was passed lifts the stop.
    const clamshell = { name: "it", material: "plastic", use: "melts" };
    expect(notToBeFilled(clamshell)).toBeNull();
    expect(notToBeFilled(clamshell, true)).toMatch(/no flame/);
    expect(notToBeFilled({ name: "it", material: "plastic", use: "tealight cup" }, true)).toBeNull();
    expect(notToBeFilled({ name: "it", material: "plastic", use: "candle" })).toMatch(/wax melts without a wick/);
    expect(notToBeFilled({ name: "it", material: "ceramic", state: "may hold lead", leadTestedOn: "2026-03-14" })).toBeNull();
    expect(cautionsOnVessel({ material: "not known" })).toMatchObject([{ weight: "take care" }]);
    expect(cautionsOnVessel({ material: "metal", state: "test jar" })[0]?.message).toMatch(/kept apart/);
  });

  it("name what does not belong in a candle", () => {
    expect(cautionsOnMaterial("red crayon ends")[0]?.message).toMatch(/clogs the wick/);
    expect(cautionsOnMaterial("gold glitter")).toHaveLength(1);
    expect(cautionsOnMaterial("stearic acid")).toEqual([]);
  });
});
