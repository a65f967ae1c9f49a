"use client";

import { useEffect } from "react";

/** Shown where a page could not be read, most often because the database is away; it tries again by itself. */
export default function Fault({ reset }: { error: Error; reset: () => void }) {
  useEffect(() => {
    const timer = setInterval(async () => {
      const answer = await fetch("/api/health").catch(() => null);
      if (answer?.ok) location.reload();
    }, 2_000);
    return () => clearInterval(timer);
  }, []);
  return (
    <main className="mx-auto max-w-[640px] px-6 py-16">
      <h1>This page cannot be read just now</h1>
      <p className="mt-3">
        The workshop's records cannot be reached. Nothing that was recorded is lost; entries made meanwhile wait on this device. The page comes back by itself.
      </p>
      <button type="button" className="act mt-5" onClick={reset}>
        Try again
      </button>
    </main>
  );
}
