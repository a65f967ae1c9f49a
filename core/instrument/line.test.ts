import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { crc16, LineReader, type Message, readLine, sealed, writeLine } from "./line";

const message = fc.oneof(
  fc.record({ is: fc.constant("temperature" as const), celsius: fc.integer({ min: -5_000, max: 40_000 }), settled: fc.boolean() }),
  fc.record({ is: fc.constant("weight" as const), mg: fc.integer({ min: -5_000_000, max: 40_000_000 }), settled: fc.boolean() }),
  fc.record({ is: fc.constant("fault" as const), of: fc.constantFrom("thermometer" as const, "scale" as const) }),
);

describe("the line of an instrument", () => {
  it("is sealed by the CRC-16 of the catalogues: 31C3 for 123456789 (polynomial 1021 from 0000; check value, from memory)", () => {
    expect(crc16("123456789")).toBe(0x31c3);
    expect(crc16("")).toBe(0);
  });

  it("says what was written, whatever pieces it comes in", () => {
    fc.assert(
      fc.property(
        fc.array(message, { maxLength: 12 }),
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 40 }),
        fc.boolean(),
        (all, sizes, cr) => {
          const text = all.map((item) => writeLine(item) + (cr ? "\r\n" : "\n")).join("");
          const reader = new LineReader();
          const heard: Message[] = [];
          for (let at = 0, n = 0; at < text.length; n++) {
            const size = sizes[n % sizes.length] as number;
            const { messages, bad } = reader.take(text.slice(at, at + size));
            expect(bad).toBe(0);
            heard.push(...messages);
            at += size;
          }
          expect(heard).toEqual(all);
        },
      ),
    );
  });

  it("reads what thermometers and scales of other units show", () => {
    expect(readLine(sealed("T 185 F S"))).toEqual({ is: "temperature", celsius: 8_500, settled: true });
    expect(readLine(sealed("W 1 lb U"))).toEqual({ is: "weight", mg: 453_592, settled: false });
    expect(readLine(sealed("W 2.5 oz S"))).toEqual({ is: "weight", mg: 70_874, settled: true });
    expect(readLine(sealed("I long probe"))).toEqual({ is: "name", name: "long probe" });
    // As it is documented.
    for (const line of ["T 84.30 C S *0B43D1", "W 127.4 g S *0BE24C", "T OPEN *06C10E", "W OVER *066EF3", "I long probe *0C7B8A"])
      expect(readLine(line)).not.toBeNull();
    // A scale does not show degrees, nor does a pot have 900 of them.
    for (const body of ["W 20 C S", "T 20 g S", "T 900 C S", "T 8O C S", "T 80 C", "T  80 C S", "80 C", "I "]) expect(readLine(sealed(body))).toBeNull();
    expect(readLine("T 80 C S")).toBeNull();
  });

  it("invents no reading: one letter changed, lost, added or swapped with the next spoils its line and no other", () => {
    fc.assert(
      fc.property(
        message,
        message,
        fc.nat(),
        fc.constantFrom("change", "lose", "add", "swap"),
        fc.integer({ min: 0x00, max: 0xff }),
        (item, other, index, how, code) => {
          const line = writeLine(item);
          const at = index % (how === "swap" ? line.length - 1 : line.length);
          const sign = String.fromCharCode(code);
          const spoilt =
            how === "change"
              ? line.slice(0, at) + sign + line.slice(at + 1)
              : how === "lose"
                ? line.slice(0, at) + line.slice(at + 1)
                : how === "add"
                  ? line.slice(0, at) + sign + line.slice(at)
                  : line.slice(0, at) + line[at + 1] + line[at] + line.slice(at + 2);
          // Lines that end as they may, or an empty one beside, leave it whole.
          fc.pre(!spoilt.split(/\r?\n|\r$/).includes(line));
          const reader = new LineReader();
          const { messages } = reader.take(`${spoilt}\n${writeLine(other)}\n`);
          expect(messages).toEqual([other]);
        },
      ),
      { numRuns: 3_000 },
    );
  });

  it("takes any noise without a fault, keeps none of it, and goes on with the next line", () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: "binary", maxLength: 300 }), { maxLength: 6 }), message, (noise, item) => {
        const reader = new LineReader();
        for (const piece of noise) reader.take(piece);
        expect(reader.take(`\n${writeLine(item)}\n`).messages.at(-1)).toEqual(item);
      }),
      { numRuns: 1_000 },
    );
    const endless = new LineReader();
    for (let n = 0; n < 1_000; n++) expect(endless.take("x".repeat(1_000)).messages).toEqual([]);
    expect(endless.take("\n").bad).toBe(1);
  });
});
