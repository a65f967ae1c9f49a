"use client";

import { useEffect, useState } from "react";
import { later } from "@/ui/later";
import { notice } from "@/ui/variants";
import { entries, flush, useOutbox } from "./outbox";
import type { Kept } from "./store";

const Refused = later<{ refused: Kept[] }>(async () => (await import("./refused")).Refused, { typed: true });

/** Keeps sending, and says what waits, what was refused, and what a device does not keep. */
export function Outbox() {
  const { waiting, refused, away, keeps } = useOutbox();
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
  // Once something was refused its list stays, for what can be had back.
  const [some, setSome] = useState(false);
  useEffect(() => {
    if (refused.length > 0) setSome(true);
  }, [refused.length]);
  return (
    <>
      {unkept ? (
        <p role="alert" className={notice({ place: "strip" })}>
          ▲ This browser keeps nothing on the device: its storage is full or forbidden.{" "}
          {waiting.length > 0
            ? `${entries(waiting.length)} ${waiting.length === 1 ? "waits" : "wait"} in this page only: leave it open until the workshop can be reached again.`
            : "While the workshop cannot be reached, entries wait in the open page only. Free some space or allow storage for this address, then load the page again."}
        </p>
      ) : null}
      {away && waiting.length > 0 && !unkept ? (
        <p role="status" className={notice({ tone: "cool", place: "strip" })}>
          {entries(waiting.length)} {waiting.length === 1 ? "is" : "are"} kept on this device and will be sent when the workshop's records can be reached again.
        </p>
      ) : null}
      {some ? <Refused refused={refused} /> : null}
    </>
  );
}
