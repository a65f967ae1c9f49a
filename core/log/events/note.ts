import type { EventType } from "../log";

/** The event type of a note. It can be added at any time, also to a closed record, and every aggregate has it. */
export const note = <F, C>(): EventType<"note", { text: string }, F, C> => ({
  kind: "note",
  version: 1,
  payload: ({ z }) => z.object({ text: z.string().trim().min(1, "Write something.").max(2_000) }),
  apply: () => {},
  correctableField: { field: "text", label: "Note", is: "text" },
  entered: { button: "Add the note", placeholder: "Anything out of the ordinary" },
  describe: (payload) => ({ what: `“${payload.text}”` }),
  columns: (payload) => ({ what: payload.text }),
});
