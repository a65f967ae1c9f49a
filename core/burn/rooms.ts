import { bad, good, type Parsed } from "../units/parsed";

/** A room of the house in which candles are smelled; its size says how strong a throw has to be. */
export interface Room {
  name: string;
  size: "small" | "large";
}

/** Where a workshop names none. */
export const DEFAULT_ROOMS: readonly Room[] = [
  { name: "bathroom", size: "small" },
  { name: "bedroom", size: "small" },
  { name: "living room", size: "large" },
];
const MAX_ROOMS = 8;

/** Writes rooms as they are typed, one a line: "living room, large". */
export const writeRooms = (rooms: readonly Room[]): string => rooms.map((room) => `${room.name}, ${room.size}`).join("\n");

/** Reads rooms as they are typed, one a line, each with its size behind a comma; one without a size is small. Nothing typed gives the usual ones. */
export function parseRooms(text: string): Parsed<Room[]> {
  const rooms: Room[] = [];
  for (const line of text.split("\n").map((text) => text.trim())) {
    if (line === "") continue;
    const [, name = "", size] = /^(.*?)(?:\s*,\s*(small|large))?$/i.exec(line) ?? [];
    if (name === "" || name.length > 60) return bad("too-long", "A room has a name of at most 60 letters, like: living room, large.");
    if (name.includes(",")) return bad("not-understood", `“${line}”: write the size behind the comma as small or large.`);
    if (rooms.some((room) => room.name.toLowerCase() === name.toLowerCase())) return bad("twice", `“${name}” is listed twice.`);
    rooms.push({ name, size: size?.toLowerCase() === "large" ? "large" : "small" });
  }
  return rooms.length > MAX_ROOMS ? bad("too-large", `At most ${MAX_ROOMS} rooms.`) : good(rooms.length > 0 ? rooms : [...DEFAULT_ROOMS]);
}

/** Returns the rooms that a workshop keeps as text. */
export function roomsOf(text: string): Room[] {
  const read = parseRooms(text);
  return read.ok ? read.value : [...DEFAULT_ROOMS];
}
