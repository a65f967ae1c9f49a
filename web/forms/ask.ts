type Answer<T> = { ok: true; value: T } | { ok: false; message: string; fields: Record<string, string[]> };

/** Asks the server; a server that does not answer is an answer too, so that nobody asks in vain. */
export const ask = <T>(asked: Promise<Answer<T>>): Promise<Answer<T>> =>
  asked.catch(() => ({ ok: false, message: "The program cannot be reached just now. Nothing you typed is lost: try again in a moment.", fields: {} }));
