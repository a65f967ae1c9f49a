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
