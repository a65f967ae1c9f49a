import { NOTE_SUBJECTS } from "@hearth/core";
import { z } from "zod";
import { Notes } from "@/features/records/notes";
import { narrowingOptions } from "@/server/batches/narrowing";
import { requestContext } from "@/server/http/context";
import { askedDays, periodOf } from "@/server/http/period";
import { CURSOR_QUERY, parseQuery } from "@/server/http/query";
import { timeCursorAt } from "@/server/shared/pages";
import { listNotes } from "@/server/workshops/all-notes";

export const metadata = { title: "Notes" };

export default async function NotesPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { ...CURSOR_QUERY, kind: z.enum(NOTE_SUBJECTS), by: z.uuid() });
  const days = askedDays(asked.when, workshop, now);
  const period = periodOf(days, workshop);
  const [list, options] = await Promise.all([listNotes(db, workshop.id, { ...asked, period }), narrowingOptions(db, workshop.id)]);
  const when = { asked: days, firstYear: options.firstYear, around: period.to ? `/records/notes?after=${timeCursorAt(period.to)}` : null };
  const by = { key: "by", label: "Written by", options: [{ value: "", label: "anybody" }, ...options.people] };
  return <Notes {...list} filters={{ when, more: [by] }} narrowed={Object.keys(asked).length > 0} />;
}
