"use client";

import { useEffect, useState } from "react";

const TRY_MS = 2_000;
/** A page that fails again so soon after it was loaded anew has a fault of its own. */
const AGAIN_MS = 60_000;
const TRIED = "hearth.tried";

/** Returns whether this page was loaded anew by itself a moment ago; notes that it is now. */
function triedLately(): boolean {
  try {
    const [path, at] = JSON.parse(sessionStorage.getItem(TRIED) ?? "[]") as [string?, number?];
    if (path === location.pathname && at && Date.now() - at < AGAIN_MS) return true;
    sessionStorage.setItem(TRIED, JSON.stringify([location.pathname, Date.now()]));
    return false;
  } catch {
    // Where nothing can be noted, nothing is loaded anew by itself.
    return true;
  }
}

/** The page shown where another could not be read: it tries again by itself until the database is back, and describes an error that stays. */
export default function Fault({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  const [lasting, setLasting] = useState(false);
  useEffect(() => {
    let last = false;
    const timer = setInterval(async () => {
      const answer = await fetch("/api/health", { cache: "no-store" }).catch(() => null);
      if (!answer?.ok || last) return;
      last = true;
      clearInterval(timer);
      if (triedLately()) setLasting(true);
      else location.reload();
    }, TRY_MS);
    return () => clearInterval(timer);
  }, []);
  return (
    <main className="mx-auto max-w-[640px] px-6 py-16">
      <h1>{lasting ? "Something went wrong" : "This page is not available"}</h1>
      <p className="mt-3">
        {lasting
          ? "The server can be reached, but this page fails. Nothing that was recorded is lost; entries that wait on this device are sent from any other page."
          : "The server cannot be reached. Nothing that was recorded is lost; new entries wait on this device. The page reloads when the server is restored."}
      </p>
      {lasting && error.digest ? <p className="mt-2 text-soft">Error ID in the server's output: {error.digest}.</p> : null}
      <div className="mt-5 flex flex-wrap gap-3">
        <button type="button" className="action-button" onClick={reset}>
          Try again
        </button>
        {/* A whole load, not a step within the page that failed. */}
        <a className="press self-center" href="/">
          Go to today
        </a>
      </div>
    </main>
  );
}
