/** Loaded only for an entry that an older version of this program kept. */
export { versionOf } from "@hearth/core";
