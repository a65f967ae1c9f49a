/** The headers of the request that a test stands in for. */
export const sent = { headers: () => new Headers() };

/** The cookies of the request that a test stands in for. */
export const jar = new Map<string, string>();

/** In place of the framework's own, which needs a request; every unit test is given these. */
export const headers = async () => sent.headers();

export const cookies = async () => ({
  get: (name: string) => (jar.has(name) ? { name, value: jar.get(name) } : undefined),
  set: (name: string, value: string) => void jar.set(name, value),
  delete: (name: string) => void jar.delete(name),
});
