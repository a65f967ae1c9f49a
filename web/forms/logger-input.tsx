/** Where the file of a temperature logger is chosen. */
export function LoggerInput({ label, onFile }: { label: string; onFile: (file: File | undefined) => void }) {
  return (
    <label className="text-[15px] font-semibold">
      {label}
      <input
        type="file"
        accept=".csv,.txt,text/csv,text/plain"
        className="mt-1 block max-w-full text-[15px]"
        onChange={(event) => onFile(event.target.files?.[0])}
      />
    </label>
  );
}

/** Which column of a logger's file is read, where it has several of temperatures. */
export function LoggerColumn({
  columns,
  column,
  onColumn,
}: {
  columns: readonly { at: number; name: string }[];
  column: number;
  onColumn: (at: number) => void;
}) {
  if (columns.length < 2) return null;
  return (
    <label className="text-[15px]">
      Column{" "}
      <select className="entry !w-auto" value={column} onChange={(event) => onColumn(Number(event.target.value))}>
        {columns.map((column) => (
          <option key={column.at} value={column.at}>
            {column.name}
          </option>
        ))}
      </select>
    </label>
  );
}
