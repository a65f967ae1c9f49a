import { useSyncExternalStore } from "react";
import type { Light } from "./chosen-light";

const DARK = "(prefers-color-scheme: dark)";
/** Calls back when the device changes between light and dark. Returns what ends that. */
export function subscribeToDeviceLight(heard: () => void): () => void {
  const query = matchMedia(DARK);
  query.addEventListener("change", heard);
  return () => query.removeEventListener("change", heard);
}

/** Returns the light that a page is shown in: the chosen one, or the device's. On the server the device's is unknown, and taken for day. */
export function useLight(chosen: Light | null): Light {
  const device = useSyncExternalStore<Light>(
    subscribeToDeviceLight,
    () => (matchMedia(DARK).matches ? "evening" : "day"),
    () => "day",
  );
  return chosen ?? device;
}
