import { z } from "zod";
import { MAX_PICTURE_BYTES, MAX_PICTURES, NOTE_SUBJECTS } from "./notes";

/** A note as it is sent: words, pictures as JPEG in base64, or both. The ids are made where it was written, so that sending it twice makes one. */
export const noteSent = z
  .object({
    id: z.uuid(),
    kind: z.enum(NOTE_SUBJECTS),
    of: z.uuid(),
    personId: z.uuid().nullable(),
    /** When it was written, where it waited on a device; when it arrives otherwise. */
    happenedAt: z.iso.datetime().optional(),
    text: z.string().trim().max(2_000, "A note has at most 2,000 letters."),
    pictures: z
      .array(z.object({ id: z.uuid(), jpeg: z.base64("A picture could not be read.").max(Math.ceil(MAX_PICTURE_BYTES / 3) * 4, "A picture is too large.") }))
      .max(MAX_PICTURES, `At most ${MAX_PICTURES} pictures go with one note.`),
  })
  .refine((note) => note.text !== "" || note.pictures.length > 0, { path: ["text"], error: "Write something, or choose a picture." });
