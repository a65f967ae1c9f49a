import { run } from "../processes";

const ROOT = new URL("../..", import.meta.url).pathname;

/** Every route, command, page and table, as nobody, a stranger, a helper and a reader, and by plain SQL as the program's own role: nothing leaks, nothing changes. */
export async function walls(): Promise<number> {
  const codes: number[] = [];
  for (const what of ["door/walls", "demo/apart", "door/door"]) codes.push((await run("./hearth", ["test", "unit", what], { cwd: ROOT, show: true })).code);
  return codes.every((code) => code === 0) ? 0 : 1;
}
