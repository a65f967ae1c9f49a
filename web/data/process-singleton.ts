/**
 * Returns what there is once in a process. The build holds a module several times, since pages, routes and the start of the server are bundled
 * apart; what has to be one for all of them, like the pool of connections, is made once under its name and kept on the global object.
 */
export function processSingleton<T>(name: string, make: () => T): T {
  const kept = globalThis as { hearthSingletons?: Map<string, unknown> };
  kept.hearthSingletons ??= new Map();
  if (!kept.hearthSingletons.has(name)) kept.hearthSingletons.set(name, make());
  return kept.hearthSingletons.get(name) as T;
}
/** Removes a singleton, so that the next use creates it again: for tests. */
export const forgetSingleton = (name: string): void => void (globalThis as { hearthSingletons?: Map<string, unknown> }).hearthSingletons?.delete(name);
