import { readFileSync } from "node:fs";
import { inflateSync } from "node:zlib";

const opened = new Map<string, Buffer>();

/** Padded to four bytes, as tables of a font stand. */
const padded = (length: number) => (length + 3) & ~3;

/**
 * A font as it was before it was packed for the web: its tables inflated once for all papers, not anew at each glyph. By the WOFF 1.0
 * recommendation of the W3C (from memory): a head of 44 bytes, then 20 bytes a table.
 */
export function openFont(file: string): Buffer {
  const known = opened.get(file);
  if (known) return known;
  const woff = readFileSync(file);
  if (woff.toString("latin1", 0, 4) !== "wOFF") throw new Error(`${file} is no WOFF font.`);
  const many = woff.readUInt16BE(12);
  const tables = Array.from({ length: many }, (_, at) => {
    const entry = 44 + 20 * at;
    const [offset, packed, length] = [woff.readUInt32BE(entry + 4), woff.readUInt32BE(entry + 8), woff.readUInt32BE(entry + 12)];
    const raw = woff.subarray(offset, offset + packed);
    return { tag: woff.subarray(entry, entry + 4), checksum: woff.readUInt32BE(entry + 16), data: packed < length ? inflateSync(raw) : raw };
  });
  const font = Buffer.alloc(12 + 16 * many + tables.reduce((sum, one) => sum + padded(one.data.length), 0));
  woff.copy(font, 0, 4, 8);
  font.writeUInt16BE(many, 4);
  const power = 2 ** Math.floor(Math.log2(many));
  font.writeUInt16BE(power * 16, 6);
  font.writeUInt16BE(Math.log2(power), 8);
  font.writeUInt16BE(many * 16 - power * 16, 10);
  let at = 12 + 16 * many;
  tables.forEach(({ tag, checksum, data }, index) => {
    const entry = 12 + 16 * index;
    tag.copy(font, entry);
    font.writeUInt32BE(checksum, entry + 4);
    font.writeUInt32BE(at, entry + 8);
    font.writeUInt32BE(data.length, entry + 12);
    data.copy(font, at);
    at += padded(data.length);
  });
  opened.set(file, font);
  return font;
}
