"use client";

import { useRef, useState } from "react";
import { forgetPages } from "@/offline/offline";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";

type Line = { share: number } | { ok: true; id: string; name: string } | { ok: false; message: string } | { error: { message: string } };

const OUT_OF_REACH = "Cannot reach the program. Nothing was imported: try again in a moment.";

/** Returns what the server says of an import: one JSON object a line, the last of them how it ended. Returns null if it said nothing that can be read. */
const lastLine = (text: string): Line | null => {
  try {
    return JSON.parse(text.trim().split("\n").at(-1) ?? "") as Line;
  } catch {
    return null;
  }
};

/** Sends the file, and says how far sending and reading are; the last line of the answer, or null if the server cannot be reached. */
const send = (file: File, heard: (words: string, share: number) => void): Promise<Line | null> =>
  new Promise((resolve) => {
    const request = new XMLHttpRequest();
    request.open("POST", "/api/workshops");
    request.setRequestHeader("content-type", "application/octet-stream");
    request.upload.onprogress = ({ loaded, total }) => heard("Sending the file", total > 0 ? loaded / total : 0);
    request.onprogress = () => {
      const line = lastLine(request.responseText);
      if (line && "share" in line) heard("Importing the file", line.share);
    };
    request.onload = () => resolve(lastLine(request.responseText));
    request.onerror = () => resolve(null);
    request.send(file);
  });

/** Reads a whole workshop from the file of its export. */
export function ImportWorkshop() {
  const router = useRouter();
  const input = useRef<HTMLInputElement>(null);
  const [progress, setProgress] = useState<{ words: string; share: number } | null>(null);
  const [message, setMessage] = useState("");
  const start = async () => {
    const file = input.current?.files?.[0];
    setMessage("");
    if (!file) return setMessage("Choose the file first.");
    setProgress({ words: "Sending the file", share: 0 });
    const line = await send(file, (words, share) => setProgress({ words, share }));
    setProgress(null);
    if (line && "ok" in line && line.ok) {
      forgetPages();
      return router.push(`/w/${line.id}`);
    }
    setMessage(line && "message" in line ? line.message : line && "error" in line ? line.error.message : OUT_OF_REACH);
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void start();
      }}
    >
      <label className="block font-semibold">
        File of the workshop
        <input ref={input} className="entry mt-1" type="file" accept=".gz,.ndjson,application/gzip,application/x-ndjson" disabled={progress !== null} />
      </label>
      <p className="mt-2 text-[15px] text-soft">
        A file from “Download everything” under People, on this server or another. Everything in it is restored, except accounts, PINs and devices: you become
        its owner here, and invite the others again.
      </p>
      {progress ? (
        <p role="status" className="mt-3">
          <progress className="mr-3 align-middle" value={progress.share} max={1} aria-label={progress.words} />
          {progress.words}: {Math.round(progress.share * 100)} %
        </p>
      ) : (
        <button type="submit" className="press mt-3">
          Import workshop
        </button>
      )}
      <FormMessage>{message}</FormMessage>
    </form>
  );
}
