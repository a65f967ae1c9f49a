"use client";

import { LARGEST_RECORD_BYTES } from "@hearth/core";
import { useState } from "react";
import { useWorkshop } from "@/log/workshop";
import { Link, useRouter } from "@/ui/address";
import { Aside, PageLayout } from "@/ui/side-notes";

/** Reads a batch record from a file into this workshop: all or nothing. */
export function ImportRecord({ workshopName }: { workshopName: string }) {
  const { workshopId } = useWorkshop();
  const [draws, setDraws] = useState(false);
  const router = useRouter();
  const [fault, setFault] = useState("");
  const [busy, setBusy] = useState(false);
  const [taken, setTaken] = useState<{ batchId?: string; trialId?: string; number: number; remarks: string[] } | null>(null);
  const [file, setFile] = useState<File | null>(null);
  const read = async () => {
    setFault("");
    setTaken(null);
    if (!file) return setFault("Choose the file first.");
    if (file.size > LARGEST_RECORD_BYTES)
      return setFault(
        `${file.name} has ${Math.round(file.size / 1_048_576)} MB, and no batch record is larger than 8 MB. Choose a file exported from a batch's record.`,
      );
    setBusy(true);
    try {
      const answer = await fetch(`/api/workshops/${workshopId}/import${draws ? "?stock=draw" : ""}`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: file,
      });
      const told = await answer.json();
      if (answer.ok) {
        setTaken(told);
        router.refresh();
      } else setFault(told.error.message);
    } catch {
      setFault("Cannot reach the program. Nothing was imported: try again in a moment.");
    } finally {
      setBusy(false);
    }
  };
  return (
    <PageLayout
      title="Import a record"
      lead={`Into ${workshopName}.`}
      side={
        <Aside title="What is imported">
          The batch with every entry, and the formula, materials, vessels, instruments and people it names. Existing items are kept. The format is published as
          a <a href="/api/v1/schemas/batch-record.json">JSON Schema</a>, and that of <a href="/api/v1/schemas/burn-record.json">burn trials</a> too.
        </Aside>
      }
    >
      <form
        className="sheet max-w-[640px]"
        onSubmit={(event) => {
          event.preventDefault();
          void read();
        }}
      >
        <label className="block font-semibold">
          A record, as JSON: of a batch or a burn trial
          <input
            className="entry mt-1"
            type="file"
            accept=".json,application/json"
            onChange={(event) => setFile(event.target.files?.[0] ?? null)}
            aria-describedby="import-fault"
          />
        </label>
        <label className="mt-3 flex items-start gap-3">
          <input type="checkbox" className="mt-1 h-5 w-5" checked={draws} onChange={(event) => setDraws(event.target.checked)} />
          <span>
            <span className="font-semibold">Deduct what it used from the stock here</span>
            <span className="block text-[15px] text-soft">
              This cannot be changed later. Leave it off for a batch that another workshop made from its own stock.
            </span>
          </span>
        </label>
        <p id="import-fault" role={fault ? "alert" : undefined} className="mt-2 font-semibold text-hot">
          {fault ? `▲ ${fault}` : ""}
        </p>
        <button type="submit" className="action-button mt-2" data-next-step disabled={busy}>
          {busy ? "Importing" : "Import record"}
        </button>
      </form>
      {taken ? (
        <section role="status" className="sheet mt-4 max-w-[640px]">
          <h2 className="text-inside">
            ✓ {taken.trialId ? "Burn trial" : "Batch"} {taken.number} is here
          </h2>
          <ul className="mt-1 list-disc pl-5">
            {taken.remarks.map((remark) => (
              <li key={remark}>{remark}</li>
            ))}
          </ul>
          <Link className="press mt-3" href={taken.trialId ? `/burn/${taken.trialId}` : `/records/${taken.batchId}`}>
            {taken.trialId ? "Look at the trial" : "View record"}
          </Link>
        </section>
      ) : null}
    </PageLayout>
  );
}
