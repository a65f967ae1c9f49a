/** The kinds of things that notes can be written about. */
export const NOTE_SUBJECTS = [
  "formula",
  "batch",
  "trial",
  "product",
  "wax",
  "fragrance",
  "dye",
  "additive",
  "wick",
  "vessel",
  "mold",
  "embed",
  "pack",
] as const;
export type NoteSubject = (typeof NOTE_SUBJECTS)[number];

/** The most pictures with one note, and the most bytes of one. */
export const MAX_PICTURES = 4;
export const MAX_PICTURE_BYTES = 600_000;

/** The size of a JPEG, and whether it carries more than its picture, like where and with what it was taken; null if it is none. */
export interface JpegRead {
  width: number;
  height: number;
  carriesMore: boolean;
}

/** Segments that belong to the picture itself: JFIF, the color profile, and how its colors are coded (ITU-T T.871; ICC.1 annex B.4; T.872). */
const OF_THE_PICTURE: Record<number, string> = { 224: "JFIF\0", 226: "ICC_PROFILE\0", 238: "Adobe" };

/** Reads the segments of a JPEG up to its picture (ITU-T T.81, annex B). */
export function readJpeg(bytes: Uint8Array): JpegRead | null {
  if (bytes[0] !== 0xff || bytes[1] !== 0xd8) return null;
  let carriesMore = false;
  for (let at = 2; at + 9 < bytes.length; ) {
    if (bytes[at] !== 0xff) return null;
    const marker = bytes[at + 1] as number;
    if (marker === 0xff) {
      at += 1;
      continue;
    }
    const length = ((bytes[at + 2] as number) << 8) | (bytes[at + 3] as number);
    if (length < 2) return null;
    // Frames: C0 to CF, but for the tables among them.
    if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker)) {
      const height = ((bytes[at + 5] as number) << 8) | (bytes[at + 6] as number);
      const width = ((bytes[at + 7] as number) << 8) | (bytes[at + 8] as number);
      return width > 0 && height > 0 ? { width, height, carriesMore } : null;
    }
    const name = OF_THE_PICTURE[marker];
    const begins = String.fromCharCode(...bytes.subarray(at + 4, at + 4 + (name?.length ?? 0)));
    if (marker === 0xfe || (marker >= 0xe0 && marker <= 0xef && (name === undefined || begins !== name))) carriesMore = true;
    at += 2 + length;
  }
  return null;
}
