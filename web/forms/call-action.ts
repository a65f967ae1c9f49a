import { type Result, reject } from "@hearth/core";

/** Asks the server; a server that does not answer is an answer too, so that nobody asks in vain. */
export const callAction = <T>(asked: Promise<Result<T>>): Promise<Result<T>> =>
  asked.catch(() => reject("Cannot reach the program. What you typed is kept: try again in a moment."));

/** Returns the messages of a refused thing of the shelf by the fields of its form: the server names them "values.name". */
export const messagesOfValues = (fields: Readonly<Record<string, string[]>>): Record<string, string[]> =>
  Object.fromEntries(Object.entries(fields).map(([name, messages]) => [name.replace("values.", ""), messages]));
