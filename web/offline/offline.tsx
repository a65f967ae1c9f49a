"use client";

import { useEffect, useState } from "react";
import { useAddress, usePathname, useRouter } from "@/ui/address";
import { useUnits } from "@/ui/units";
import { notice } from "@/ui/variants";
import { isKeptPath, type Told } from "./pages";

const LISTS = ["/bench", "/rack", "/inspect", "/burn"];
/** A page that was read again so lately need not be kept anew. */
const FRESH_MS = 60_000;
const TRY_MS = 3_000;
const keptAt = new Map<string, number>();

const tell = (told: Told): void => void navigator.serviceWorker?.controller?.postMessage(told);

/** Another workshop or person: what was kept shows the wrong one. */
export const forgetPages = (): void => {
  keptAt.clear();
  if (typeof navigator !== "undefined") tell({ is: "forget" });
};

function keepPages(asked: string[]): void {
  const now = Date.now();
  const paths = asked.filter((path) => isKeptPath(path) && now - (keptAt.get(path) ?? 0) > FRESH_MS);
  if (paths.length === 0 || !navigator.serviceWorker?.controller) return;
  for (const path of paths) keptAt.set(path, now);
  tell({ is: "keep", paths });
}

/** Has bench, rack, inspect and burn open without the server, and says so where a page is an older one. */
export function Offline() {
  const path = usePathname();
  const address = useAddress();
  const router = useRouter();
  const units = useUnits();
  const [kept, setKept] = useState<string | null>(null);
  useEffect(() => {
    if (process.env.NODE_ENV !== "production" || !navigator.serviceWorker) return;
    // Another worker has kept none of what this page asked for.
    const taken = () => {
      keptAt.clear();
      keepPages([...LISTS, path].map(address));
    };
    navigator.serviceWorker.addEventListener("controllerchange", taken);
    // Where it is forbidden the page works all the same, with the server.
    void navigator.serviceWorker.register("/worker.js").catch(() => undefined);
    return () => navigator.serviceWorker.removeEventListener("controllerchange", taken);
  }, []);
  useEffect(() => {
    if (process.env.NODE_ENV !== "production" || document.documentElement.dataset.kept) return;
    const timer = setTimeout(() => keepPages([...LISTS, path].map(address)), 1_500);
    return () => clearTimeout(timer);
  }, [path, address]);
  useEffect(() => {
    const { dataset } = document.documentElement;
    setKept(dataset.kept ?? null);
    if (!dataset.kept) return;
    const timer = setInterval(async () => {
      const answer = await fetch("/api/health", { cache: "no-store" }).catch(() => null);
      if (!answer?.ok) return;
      clearInterval(timer);
      delete dataset.kept;
      setKept(null);
      router.refresh();
    }, TRY_MS);
    return () => clearInterval(timer);
  }, [router]);
  if (!kept) return null;
  return (
    <p role="status" className={notice({ tone: "cool", place: "strip" })}>
      Offline. This page is from {units.dayClock(kept)}; what you enter is kept on this device and sent later.
    </p>
  );
}
