import type { EventBody } from "../batch/batch";
import type { BatchPlan } from "../batch/plan";
import { defectOf } from "../defects/defects";
import type { Severity } from "../defects/places";
import { poursOf, recorderOf } from "../process/process";
import type { StepRecord } from "../process/step-type";
import { addDays } from "../units/calendar";
import { SECONDS, secondsLater, writeDuration } from "../units/duration";
import type { NotesReading } from "./columns";
import { isNoWick, isUnscented, type NameChoices, type NamedKind, nameKey, readWick } from "./names";
import { flawsOfRow, type NoteFault, type NoteRow, noteCell } from "./rows";

/** Something of the shelf that a row names: a thing that is there, or the key of one that is put there with the import. */
export type NamedRef = string;
export interface NotedShare {
  ref: NamedRef;
  share: number;
}

/** What a row says of a candle, whatever the notebook is about. */
export interface CandleNote {
  waxes: NotedShare[];
  scents: NotedShare[];
  /** Millionths of the wax; 0 where it is unscented. */
  loadPpm: number;
  vessel: NamedRef;
  wick: { ref: NamedRef; count: number } | null;
}

/** A batch as a notebook has it. Null is what it does not say. */
export interface BatchNote extends CandleNote {
  line: number;
  day: string;
  count: number;
  heat: number | null;
  add: number | null;
  pour: number | null;
  room: number | null;
  /** How old it was when it was smelled, in seconds. */
  cure: number | null;
  isLookedAt: boolean;
  flaws: { defect: string; severity: Severity; jars: number }[];
  cold: number | null;
  hot: number | null;
  hotRoom: string;
  remark: string;
}

/** Returns the reference of a name: the id of what was chosen, or its key where it is new; null where no choice was made. */
export function refOf(kind: NamedKind, name: string, choices: NameChoices): NamedRef | null {
  const key = nameKey(kind, name);
  const choice = choices[key];
  return choice === undefined ? null : "id" in choice ? choice.id : key;
}

/** Returns the parts of a blend with equal shares where none was noted; a message where only some have one. */
function sharesOf(kind: "wax" | "fragrance", parts: NonNullable<NoteRow["values"]["wax"]>, choices: NameChoices): NotedShare[] | string {
  const noted = parts.filter((part) => part.share !== null).length;
  if (parts.length > 1 && noted < parts.length && (kind === "wax" || noted > 0))
    return `the share of ${parts.find((part) => part.share === null)?.name} is missing: write it like “80 % one + 20 % another”.`;
  const shares = parts.flatMap((part): NotedShare[] => {
    const ref = refOf(kind, part.name, choices);
    return ref === null || part.share === 0 ? [] : [{ ref, share: part.share ?? 1 }];
  });
  // The same wax twice, by two spellings, is one part.
  const merged = new Map<string, number>();
  for (const { ref, share } of shares) merged.set(ref, (merged.get(ref) ?? 0) + share);
  return [...merged].map(([ref, share]) => ({ ref, share }));
}

/** Returns what a row says of its candle, and what is wrong with that. */
export function candleNote({ line, values }: NoteRow, reading: NotesReading, choices: NameChoices): { candle: CandleNote; faults: NoteFault[] } {
  const faults: NoteFault[] = [];
  const blame = (key: string, message: string) => faults.push({ cell: noteCell(reading, key, line), message });
  const read = (kind: "wax" | "fragrance", key: "wax" | "scent", parts: NonNullable<NoteRow["values"]["wax"]>) => {
    const shares = sharesOf(kind, parts, choices);
    if (typeof shares !== "string") return shares;
    blame(key, `${key === "wax" ? "Wax" : "Scent"}: ${shares}`);
    return [];
  };
  const waxes = read("wax", "wax", values.wax ?? []);
  const scents = read(
    "fragrance",
    "scent",
    (values.scent ?? []).filter((part) => !isUnscented(part.name)),
  );
  if (scents.length > 0 && values.load === undefined) blame("load", "The fragrance load is missing. Enter one for empty cells above, or in the file.");
  const vessel = values.vessel ? (refOf("vessel", values.vessel, choices) ?? "") : "";
  const chosen = choices[nameKey("vessel", values.vessel ?? "")];
  if (values.vessel && chosen && !("id" in chosen) && !chosen.fillMg)
    blame("vessel", `The fill of “${values.vessel}” is not known: enter it beside its name above.`);
  const noted = values.wick && !isNoWick(values.wick) ? readWick(values.wick) : null;
  const wick = noted && { ref: refOf("wick", noted.name, choices) ?? "", count: Math.min(9, noted.count) };
  return { candle: { waxes, scents, loadPpm: scents.length > 0 ? (values.load ?? 0) : 0, vessel, wick }, faults };
}

const written = (score: number) => `${score} of 10`;

/** Returns the batch that a row notes, and everything that is wrong with the row, by cell. */
export function batchNote(row: NoteRow, reading: NotesReading, choices: NameChoices, today: string): { note: BatchNote; faults: NoteFault[] } {
  const { values, line } = row;
  const { candle, faults: ofCandle } = candleNote(row, reading, choices);
  const faults = [...row.faults, ...ofCandle];
  const count = values.count ?? 0;
  const seen = flawsOfRow(values);
  const flaws = seen.flaws.map(({ defect, severity, jars }) => ({ defect, severity, jars: jars ?? (reading.flawsOn === "every jar" ? count : 1) }));
  const tooMany = flaws.find((flaw) => flaw.jars > count);
  if (tooMany && count > 0)
    faults.push({ cell: noteCell(reading, "flaws", line), message: `${tooMany.jars} jars with ${defectOf(tooMany.defect)?.name}, but ${count} were made.` });
  const { cold = null, hot = null, cure = null } = values;
  if (cure !== null && values.day && addDays(values.day, Math.ceil(cure / SECONDS.d)) > today)
    faults.push({ cell: noteCell(reading, "cure", line), message: `Cured ${writeDuration(cure)}, but that is not over yet.` });
  const remark = [
    values.remarks ?? "",
    ...row.comments,
    ...(seen.unknown.length > 0 ? [`Seen: ${seen.unknown.join(", ")}`] : []),
    // A score without an age cannot be compared with others, so it is kept in words only.
    ...(cold !== null && cure === null ? [`Cold throw ${written(cold)}, age not noted`] : []),
    ...(hot !== null && cure === null ? [`Hot throw ${written(hot)}, age not noted`] : []),
  ];
  return {
    note: {
      ...candle,
      ...{ line, day: values.day ?? "", count },
      ...{ heat: values.heat ?? null, add: values.add ?? null, pour: values.pour ?? null, room: values.room ?? null },
      ...{ cure, isLookedAt: seen.isLookedAt, flaws, cold: cure === null ? null : cold, hot: cure === null ? null : hot, hotRoom: values.hotRoom ?? "" },
      remark: remark.filter(Boolean).join("\n").slice(0, 2_000),
    },
    faults,
  };
}

/** Returns the entries that a batch from notes is recorded by after its start, in order of time. Nothing is entered that the notes do not hold. */
export function notedEntries(plan: BatchPlan, note: BatchNote, pouredAt: string): { happenedAt: string; body: EventBody }[] {
  const { steps } = plan.process;
  const entries: { happenedAt: string; body: EventBody }[] = [];
  const put = (happenedAt: string, body: EventBody) => entries.push({ happenedAt, body });
  const read = (value: StepRecord, shown: number | null) => {
    const step = recorderOf(steps, value);
    if (shown !== null && step) put(pouredAt, { kind: "read", payload: { step: step.id, shown, correction: 0, untimed: true } });
  };
  read("heat_c", note.heat);
  read("add_c", note.add);
  read("pour_c", note.pour);
  for (const [index, pour] of poursOf(steps).entries())
    put(pouredAt, {
      kind: "poured",
      payload: {
        step: pour.id,
        filled: plan.products.map(({ key }) => ({ product: key, count: note.count })),
        leftMg: null,
        roomCelsius: index === 0 ? note.room : null,
        warmed: null,
      },
    });
  const [product] = plan.products;
  for (const { defect, severity, jars } of note.flaws)
    if (product) put(pouredAt, { kind: "flaw", payload: { defect, severity, jars, product: product.key, place: defectOf(defect)?.places[0] ?? "top" } });
  if (note.isLookedAt) put(pouredAt, { kind: "inspected", payload: { jars: note.count } });
  const smelledAt = note.cure === null ? pouredAt : secondsLater(pouredAt, note.cure);
  if (note.cold !== null) put(smelledAt, { kind: "smelled", payload: { score: note.cold, room: "" } });
  if (note.remark) put(smelledAt, { kind: "note", payload: { text: note.remark } });
  put(smelledAt, { kind: "closed", payload: { missing: ["what the notes do not say"] } });
  return entries;
}
