"use client";

import { KEPT_PAGES } from "@/offline/pages";
import { device, forgetAll, forgetKnown } from "./store";

/** Takes everything off this device that was kept of a workshop: pages, batches, and entries that were not sent. */
export async function wipeDevice(): Promise<void> {
  await forgetAll().catch(() => undefined);
  (await device())?.close();
  // Who would fill the pages again goes first.
  for (const worker of (await navigator.serviceWorker?.getRegistrations()) ?? []) await worker.unregister();
  for (const name of (await globalThis.caches?.keys()) ?? []) await caches.delete(name);
  try {
    localStorage.clear();
    sessionStorage.clear();
  } catch {
    // What cannot be kept need not be wiped.
  }
}

let checking = false;
/** Asks whether this browser may still come in. One that was cut off is wiped, and says so; one without a sign-in goes to it. */
export async function checkDoor(): Promise<void> {
  if (checking) return;
  checking = true;
  try {
    const answer = await fetch("/api/door", { cache: "no-store" }).catch(() => null);
    if (!answer?.ok) return;
    const { asks, cut, in: inside } = (await answer.json()) as { asks: boolean; cut: boolean; in: boolean };
    if (!asks) return;
    if (cut) {
      await wipeDevice();
      location.replace("/join?cut=1");
    } else if (!inside) location.assign(`/sign-in?to=${encodeURIComponent(location.pathname + location.search)}`);
  } finally {
    checking = false;
  }
}

/** Ends the sign-in of this browser, or of who works on this device, and takes off it what was kept of the workshop but for entries that still wait. */
export async function leaveDoor(act: "sign-out" | "nobody"): Promise<void> {
  await fetch(`/api/door/${act}`, { method: "POST", headers: { "content-type": "application/json" }, body: "{}" }).catch(() => null);
  await forgetKnown().catch(() => undefined);
  for (const name of (await globalThis.caches?.keys()) ?? []) if (name === KEPT_PAGES) await caches.delete(name);
  location.assign("/sign-in");
}
