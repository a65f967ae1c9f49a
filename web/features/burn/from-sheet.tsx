"use client";

import { readBurnRows } from "@hearth/core";
import { useState } from "react";
import { parseFile } from "@/forms/file-parse";
import { entries } from "@/log/outbox";
import type { Trial } from "./use-trial";

/** Sessions that were burned on paper or elsewhere, out of a CSV of the same columns as the one that leaves. */
export function FromSheet({ trial }: { trial: Trial }) {
  const [message, setMessage] = useState("");
  const [fault, setFault] = useState("");
  const read = async (file: File | undefined) => {
    if (!file) return;
    setMessage("");
    const table = parseFile(new Uint8Array(await file.arrayBuffer()));
    if (!table.ok) return setFault(table.message);
    const rows = readBurnRows(table.sheet.heads, table.sheet.rows, trial.plan, trial.state);
    if (!rows.ok) return setFault(rows.message);
    setFault("");
    let taken = 0;
    for (const timed of rows.value) {
      const refusal = await trial.record(timed);
      if (refusal) return setFault(`${taken} of ${rows.value.length} were imported; then: ${refusal.message}`);
      taken += 1;
    }
    setMessage(taken === 0 ? "Everything in this file was here already." : `✓ ${entries(taken)} imported.`);
  };
  return (
    <section className="unprinted mt-6">
      <h2>Sessions from a file</h2>
      <label className="mt-1 block text-[15px]">
        A CSV file with the columns of the export above. Existing sessions are skipped.
        <input type="file" accept=".csv,text/csv" className="mt-1 block max-w-full" onChange={(event) => void read(event.target.files?.[0])} />
      </label>
      {fault ? (
        <p role="alert" className="mt-1 font-semibold text-hot">
          ▲ {fault}
        </p>
      ) : null}
      {message ? (
        <p role="status" className="mt-1 font-semibold">
          {message}
        </p>
      ) : null}
    </section>
  );
}
