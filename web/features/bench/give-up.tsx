"use client";

import { useState } from "react";
import { callAction } from "@/forms/call-action";
import type { Batch } from "@/log/use-batch";
import { useWorkshop } from "@/log/workshop";
import { undoBatch } from "@/server/batches/commands";
import { Link, useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { lazy, usePreload } from "@/ui/lazy";

const Abandon = lazy(async () => (await import("./abandon")).Abandon);

/** Before its first entry a batch is undone; after it, it is abandoned, and says what became of the wax. */
export function GiveUp({ batch, batchId }: { batch: Batch; batchId: string }) {
  usePreload(Abandon);
  const workshop = useWorkshop();
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [message, setMessage] = useState("");
  if (batch.state.closed || batch.pouredAt) return null;
  if (batch.state.abandoned)
    return (
      <p className="flex flex-wrap items-center gap-3">
        <strong>Abandoned</strong>; the wax was {batch.state.abandoned.wax}.
        <button
          type="button"
          className="press"
          onClick={() =>
            void batch.record({ kind: "withdrawn", payload: { why: "resumed", mode: "delete" }, corrects: batch.state.abandoned?.eventId ?? null })
          }
        >
          Restore draft again
        </button>
        <Link className="press" href="/bench">
          Back to the bench
        </Link>
      </p>
    );
  const untouched = batch.total <= 1 && batch.events.length <= 1;
  const undo = async () => {
    const outcome = await callAction(undoBatch(workshop, { batchId }));
    if (!outcome.ok) return setMessage(outcome.message);
    router.push("/plan");
  };
  return (
    <div>
      {untouched ? (
        <button type="button" className="press" onClick={() => void undo()}>
          Undo the start
        </button>
      ) : (
        <button type="button" className="press" aria-expanded={open} onClick={() => setOpen(!open)}>
          Abandon this batch
        </button>
      )}
      {open && !untouched ? <Abandon batch={batch} onDone={() => setOpen(false)} /> : null}
      <FormMessage>{message}</FormMessage>
    </div>
  );
}
