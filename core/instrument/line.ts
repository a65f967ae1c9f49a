import { MG_PER } from "../units/mass";
import { type CentiCelsius, fromFahrenheit } from "../units/temperature";

/**
 * What an instrument says on its line: ASCII, one message a line, ended by LF or CR LF, at most 60 characters.
 *
 *   T 84.30 C S *0B43D1    a thermometer: C or F; S settled, U not yet
 *   W 127.4 g S *0BE24C    a scale: g, kg, oz or lb
 *   T OPEN *06C10E         the probe's cable is loose
 *   W OVER *066EF3         more than the scale can weigh
 *   I long probe *0C7B8A   what it is
 *
 * Behind " *" stand, in capital hexadecimal digits, how many characters are before it (two digits) and their CRC-16 (four digits;
 * polynomial 1021, from 0000). A line that does not hold to this to the letter is no reading. A scale is sent "Z" and LF to be tared.
 */
export type Message =
  | { is: "temperature"; celsius: CentiCelsius; settled: boolean }
  | { is: "weight"; mg: number; settled: boolean }
  | { is: "fault"; of: "thermometer" | "scale" }
  | { is: "name"; name: string };

/** Returns the CRC-16 of ASCII text, with polynomial 0x1021 and initial value 0: 0 to 65535. */
export function crc16(text: string): number {
  let crc = 0;
  for (let at = 0; at < text.length; at++) {
    crc ^= (text.charCodeAt(at) & 0xff) << 8;
    for (let bit = 0; bit < 8; bit++) crc = (crc & 0x8000 ? (crc << 1) ^ 0x1021 : crc << 1) & 0xffff;
  }
  return crc;
}

const hex = (value: number, digits: number): string => value.toString(16).toUpperCase().padStart(digits, "0");
/** Returns a message with its length and check behind it. */
export const sealed = (body: string): string => `${body} *${hex(body.length, 2)}${hex(crc16(body), 4)}`;

/** Returns the line of a message, without its end. Temperatures in °C to the hundredth, weights in grams to the milligram. */
export function writeLine(message: Message): string {
  switch (message.is) {
    case "temperature":
      return sealed(`T ${(message.celsius / 100).toFixed(2)} C ${message.settled ? "S" : "U"}`);
    case "weight":
      return sealed(`W ${(message.mg / 1_000).toFixed(3)} g ${message.settled ? "S" : "U"}`);
    case "fault":
      return sealed(message.of === "thermometer" ? "T OPEN" : "W OVER");
    case "name":
      return sealed(`I ${message.name}`);
  }
}

const LINE = /^([\x20-\x7e]{1,50}) \*[0-9A-F]{6}$/;
const READING = /^([TW]) (-?\d{1,6}(?:\.\d{1,3})?) (C|F|g|kg|oz|lb) ([SU])$/;
/** No thermometer of a workshop shows more or less, in hundredths of °C. */
const COLDEST = -5_000;
const HOTTEST = 40_000;

/** Returns what a line says; null if it says nothing that can be relied on. */
export function readLine(line: string): Message | null {
  const body = LINE.exec(line)?.[1];
  if (body === undefined || sealed(body) !== line) return null;
  if (body === "T OPEN") return { is: "fault", of: "thermometer" };
  if (body === "W OVER") return { is: "fault", of: "scale" };
  if (body.startsWith("I ") && body.length > 2) return { is: "name", name: body.slice(2) };
  const [, kind, figure, unit, state] = READING.exec(body) ?? [];
  if (!kind) return null;
  const value = Number(figure);
  const settled = state === "S";
  if (kind === "T") {
    if (unit !== "C" && unit !== "F") return null;
    const celsius = unit === "C" ? Math.round(value * 100) : fromFahrenheit(value);
    return celsius < COLDEST || celsius > HOTTEST ? null : { is: "temperature", celsius, settled };
  }
  return unit && unit in MG_PER ? { is: "weight", mg: Math.round(value * MG_PER[unit as keyof typeof MG_PER]), settled } : null;
}

/** Longer than any line may be: what goes on so long without an end is noise. */
const LONGEST = 120;

/** Assembles lines from the chunks that arrive and passes each parsed line on. After a damaged line it starts again at the next line end. */
export class LineReader {
  #text = "";
  #spoilt = false;

  /** Messages of the lines that a piece ends, in order; `bad` counts those that said nothing. */
  take(piece: string): { messages: Message[]; bad: number } {
    const messages: Message[] = [];
    let bad = 0;
    for (const part of piece.split(/(\n)/)) {
      if (part !== "\n") {
        this.#text += part;
        if (this.#text.length > LONGEST) {
          this.#text = "";
          this.#spoilt = true;
        }
        continue;
      }
      const line = this.#text.replace(/\r$/, "");
      const message = this.#spoilt ? null : readLine(line);
      if (message) messages.push(message);
      else if (line !== "" || this.#spoilt) bad++;
      this.#text = "";
      this.#spoilt = false;
    }
    return { messages, bad };
  }
}
