"use client";

import { KEPT_PAGES } from "@/offline/pages";
import { allEntries, clearLogCache, device, forgetAll } from "./store";

const WIPED = "hearth.wiped";
/** Returns what was wiped from this device though it had not been sent, in words, until the tab is closed. */
export function wipedUnsent(): string[] {
  try {
    return JSON.parse(sessionStorage.getItem(WIPED) ?? "[]") as string[];
  } catch {
    return [];
  }
}

/** Takes everything off this device that was kept of a workshop: pages, batches, and entries that were not sent. What those were is told once more. */
export async function clearDevice(): Promise<void> {
  const unsent = (await allEntries().catch(() => []))
    .filter((entry) => entry.state !== "taken")
    .map((entry) => `${entry.told || entry.event.kind}${entry.of ? `, ${entry.of}` : ""}`);
  const told = unsent.length > 0 ? unsent : wipedUnsent();
  await forgetAll().catch(() => undefined);
  (await device())?.close();
  // Who would fill the pages again goes first.
  for (const worker of (await navigator.serviceWorker?.getRegistrations()) ?? []) await worker.unregister();
  for (const name of (await globalThis.caches?.keys()) ?? []) await caches.delete(name);
  try {
    localStorage.clear();
    sessionStorage.clear();
    if (told.length > 0) sessionStorage.setItem(WIPED, JSON.stringify(told));
  } catch {
    // What cannot be kept need not be wiped.
  }
}

let checking = false;
/** Asks whether this browser may still come in. One that was cut off is wiped, and says so; one without a sign-in goes to it. */
export async function checkSignIn(): Promise<void> {
  if (checking) return;
  checking = true;
  try {
    const answer = await fetch("/api/auth", { cache: "no-store" }).catch(() => null);
    if (!answer?.ok) return;
    const { asks, cut, in: inside } = (await answer.json()) as { asks: boolean; cut: boolean; in: boolean };
    if (!asks) return;
    if (cut) {
      await clearDevice();
      location.replace("/join?cut=1");
    } else if (!inside) location.assign(`/sign-in?to=${encodeURIComponent(location.pathname + location.search)}`);
  } finally {
    checking = false;
  }
}

/** The message shown where signing out failed. */
export const STILL_IN = "You are not signed out, because the workshop cannot be reached. Entries still count as yours. Try again when it can be reached.";

/**
 * Ends the sign-in of this browser, or of who works on this device, and takes off it what was kept of the workshop but for entries that still wait. Returns
 * false, and changes nothing, where the server cannot be told: its cookie would go on opening the workshop.
 */
export async function signOutDevice(command: "sign-out" | "nobody"): Promise<boolean> {
  const answer = await fetch(`/api/auth/${command}`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: "{}",
    redirect: "manual",
    signal: AbortSignal.timeout(15_000),
  }).catch(() => null);
  const isOwn = answer && (answer.headers.get("content-type") ?? "").startsWith("application/json");
  // Who is not signed in any more need not be signed out.
  if (!isOwn || !(answer.ok || answer.status === 401)) return false;
  await clearLogCache().catch(() => undefined);
  for (const name of (await globalThis.caches?.keys()) ?? []) if (name === KEPT_PAGES) await caches.delete(name);
  location.assign("/sign-in");
  return true;
}
