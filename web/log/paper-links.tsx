"use client";

import { useWorkshop } from "./workshop";

/** A batch on paper: its sheet, and a tag for each jar. */
export function PaperLinks({ batchId }: { batchId: string }) {
  const { workshopId } = useWorkshop();
  const sheet = `/api/workshops/${workshopId}/batches/${batchId}/sheet`;
  return (
    <>
      <a className="press" href={sheet} target="_blank" rel="noreferrer">
        Sheet (PDF)
      </a>
      <a className="press" href={`${sheet}?what=tags`} target="_blank" rel="noreferrer">
        Tags (PDF)
      </a>
    </>
  );
}
