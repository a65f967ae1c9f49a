import { run } from "../processes";
import { ROOT } from "../root";

/** Returns every route, command, page and table, as nobody, a stranger, a helper and a reader, and by plain SQL as the program's own role: nothing leaks, nothing changes. */
export async function tenants(): Promise<number> {
  const codes: number[] = [];
  for (const what of ["auth/tenant-isolation", "demo/apart", "auth/auth.test"])
    codes.push((await run("./hearth", ["test", "unit", what], { cwd: ROOT, show: true })).code);
  return codes.every((code) => code === 0) ? 0 : 1;
}
