"use client";

import { useEffect, useState } from "react";
import { lazy } from "@/ui/lazy";
import { notice } from "@/ui/variants";
import { checkHistory, entries, flush, useOutbox } from "./outbox";
import type { OutboxEntry } from "./store";
import { useWorkshop } from "./workshop";

const Lost = lazy<{ lost: OutboxEntry[] }>(async () => (await import("./lost")).Lost);
const Refused = lazy<{ refused: OutboxEntry[] }>(async () => (await import("./refused")).RejectedEntry, { typed: true });

/** Keeps sending, and says what waits, what was refused, what a device does not keep, and what a restored backup lacks. `epoch`: of which history the page is. */
export function Outbox({ epoch }: { epoch: string }) {
  const { waiting, refused, lost, away, keeps, unkept: here } = useOutbox();
  const { workshopId } = useWorkshop();
  useEffect(() => void checkHistory(workshopId, epoch), [workshopId, epoch]);
  useEffect(() => {
    const now = () => void flush();
    now();
    const timer = setInterval(now, 3_000);
    window.addEventListener("online", now);
    return () => {
      clearInterval(timer);
      window.removeEventListener("online", now);
    };
  }, []);
  const unkept = keeps === false;
  const onDevice = waiting.length - here;
  // Once something was refused its list stays, for what can be had back.
  const [some, setSome] = useState(false);
  useEffect(() => {
    if (refused.length > 0) setSome(true);
  }, [refused.length]);
  return (
    <>
      {unkept ? (
        <p role="alert" className={notice({ place: "strip" })}>
          ▲ This browser cannot save entries: its storage is full or blocked.{" "}
          {here > 0
            ? `${entries(here)} ${here === 1 ? "waits" : "wait"} in this page only: leave it open until the workshop can be reached again.`
            : "While the workshop cannot be reached, entries wait in this open page only. Free some space or allow storage for this address, then reload the page."}
        </p>
      ) : null}
      {away && onDevice > 0 ? (
        <p role="status" className={notice({ tone: "cool", place: "strip" })}>
          {entries(onDevice)} {onDevice === 1 ? "is" : "are"} kept on this device and will be sent when the workshop's records can be reached again.
        </p>
      ) : null}
      {lost.length > 0 ? <Lost lost={lost} /> : null}
      {some ? <Refused refused={refused} /> : null}
    </>
  );
}
