import { statfs } from "node:fs/promises";

/** Less than this is too little to go on writing safely, in bytes. */
const MIN_FREE = 64 * 1_024 * 1_024;

/** Returns whether there is room left where the data is; null if that cannot be known. */
export async function diskHasRoom(folder = process.env.HEARTH_HOME, least = MIN_FREE): Promise<boolean | null> {
  if (!folder) return null;
  try {
    const { bavail, bsize } = await statfs(folder);
    return bavail * bsize >= least;
  } catch {
    return null;
  }
}
