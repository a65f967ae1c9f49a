/** An object as an earlier version stored it. */
export type Stored = Record<string, unknown>;

const isObject = (raw: unknown): raw is Stored => typeof raw === "object" && raw !== null && !Array.isArray(raw);

/** Returns a function that gives keys of a stored object their names of now, by `{ formerName: name }`; all other keys stay as they are. */
export const renameKeys =
  (names: Readonly<Record<string, string>>) =>
  (stored: Stored): Stored =>
    Object.fromEntries(Object.entries(stored).map(([key, value]) => [Object.hasOwn(names, key) ? names[key] : key, value]));

/** Returns a stored list with each object in it upcast. A value that is not a list, and items that are not objects, are returned unchanged. */
export const upcastList = (list: unknown, upcast: (stored: Stored) => unknown): unknown =>
  Array.isArray(list) ? list.map((item: unknown) => (isObject(item) ? upcast(item) : item)) : list;
