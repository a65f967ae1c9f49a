import { describe, expect, it } from "vitest";
import { readJpeg } from "./notes";

/** Segments of a JPEG as ITU-T T.81, annex B, lays them out: marker, length with itself, contents. */
const segment = (marker: number, contents: string | number[]) => {
  const bytes = typeof contents === "string" ? [...contents].map((sign) => sign.charCodeAt(0)) : contents;
  return [0xff, marker, (bytes.length + 2) >> 8, (bytes.length + 2) & 255, ...bytes];
};
const frame = segment(0xc0, [8, 0x02, 0x58, 0x03, 0x20, 3, 1, 0x22, 0, 2, 0x11, 1, 3, 0x11, 1]);
const jpeg = (...parts: number[][]) => new Uint8Array([0xff, 0xd8, ...parts.flat(), 0xff, 0xda, 0, 8, 1, 1, 0, 0, 63, 0, 0xff, 0xd9]);

describe("a picture", () => {
  it("tells its size, and what it carries beside itself", () => {
    const plain = [segment(0xe0, "JFIF\0\x01\x01\0\0\x01\0\x01\0\0"), segment(0xe2, "ICC_PROFILE\0\x01\x01abc"), segment(0xee, "Adobe\0d")];
    expect(readJpeg(jpeg(...plain, frame))).toEqual({ width: 800, height: 600, carriesMore: false });
    for (const more of [
      // Where and with what it was taken; what a program wrote; a remark.
      segment(0xe1, "Exif\0\0MM\0*\0\0\0\b"),
      segment(0xe1, "http://ns.adobe.com/xap/1.0/\0<x/>"),
      segment(0xe2, "FPXR\0abc"),
      segment(0xed, "Photoshop 3.0\0"),
      segment(0xfe, "taken at the shed"),
    ])
      expect(readJpeg(jpeg(...plain, more, frame))).toMatchObject({ carriesMore: true });
  });

  it("is refused where it is none, or cut off", () => {
    const whole = jpeg(segment(0xe0, "JFIF\0\x01\x01\0\0\x01\0\x01\0\0"), frame);
    for (const bytes of [
      new Uint8Array(),
      new Uint8Array([0x89, 0x50, 0x4e, 0x47]),
      whole.subarray(0, 20),
      jpeg(),
      jpeg(segment(0xc0, [8, 0, 0, 3, 32, 3, 1, 34, 0, 2])),
    ])
      expect(readJpeg(bytes)).toBeNull();
    // Any cut before the frame ends in no picture, never in a fault.
    for (let at = 0; at < whole.length; at++) expect(() => readJpeg(whole.subarray(0, at))).not.toThrow();
  });
});
