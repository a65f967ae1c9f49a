/** The headers of the request that a test stands in for. */
export const sent = { headers: () => new Headers() };

/** The cookies of the request that a test stands in for. */
export const jar = new Map<string, string>();

/**
 * @public
 */
export const headers = async () => sent.headers();

/**
 * In place of next's own, which needs a request: `vi.mock("next/headers", () => import("../testing/headers"))`.
 * @public
 */
export const cookies = async () => ({
  get: (name: string) => (jar.has(name) ? { name, value: jar.get(name) } : undefined),
  set: (name: string, value: string) => void jar.set(name, value),
  delete: (name: string) => void jar.delete(name),
});
