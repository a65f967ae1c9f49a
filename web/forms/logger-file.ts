import { type LoggerFile as LoggedFile, readLogger } from "@hearth/core";
import type { Formats } from "@/ui/units";
import { parseFile } from "./file-parse";

export type LoggerFile = ({ ok: true } & LoggedFile) | { ok: false; message: string };

/** Returns what the file of a temperature logger holds, its times in the workshop's zone where they name none; of several columns of temperatures the one at `column`. */
export async function readLoggerFile(file: File, units: Formats, column?: number): Promise<LoggerFile> {
  const table = parseFile(new Uint8Array(await file.arrayBuffer()));
  if (!table.ok) return table;
  const logged = readLogger([table.sheet.heads, ...table.sheet.rows], { zone: units.zone, monthFirst: units.manner.date.startsWith("L"), column });
  return logged.ok ? { ok: true, ...logged.value } : logged;
}
