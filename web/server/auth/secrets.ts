import { createHash, randomBytes, randomInt } from "node:crypto";

/** Digits and letters that are not taken for one another when they are read off a screen. */
const SIGNS = "23456789ABCDEFGHJKMNPQRSTVWXYZ";

const written = (signs: number): string => Array.from({ length: signs }, () => SIGNS[randomInt(SIGNS.length)]).join("");

/** Returns a code to be typed: so many groups of four signs, each group worth almost 20 bits. */
export const freshCode = (groups: number): string => Array.from({ length: groups }, () => written(4)).join("-");

/** Returns a code as somebody typed it, whatever its case and spacing. */
export const readCode = (typed: string): string =>
  (
    typed
      .toUpperCase()
      .replaceAll(/[^0-9A-Z]/g, "")
      .match(/.{1,4}/g) ?? []
  ).join("-");

/** Returns a secret that only programs carry: 256 bits. */
export const freshToken = (): string => randomBytes(32).toString("base64url");

/** Returns what is kept of a secret that cannot be guessed: its hash (SHA-256, FIPS 180-4). Never for what a person chose. */
export const hashOf = (secret: string): string => createHash("sha256").update(secret).digest("hex");
