"use client";

import { useSyncExternalStore } from "react";
import type { ExternalToast } from "sonner";
import { lazy } from "./lazy";

/** Whether anything was said since the page was opened: only then is what shows it loaded. */
let said = false;
let ready: () => void = () => undefined;
const shown = new Promise<void>((resolve) => {
  ready = resolve;
});
const listeners = new Set<() => void>();

/** Says for a while what was done, with a way back. */
export function toast(words: string, options: ExternalToast = {}): void {
  said = true;
  for (const listener of listeners) listener();
  void Promise.all([import("sonner"), shown]).then(([{ toast: show }]) => show(words, options));
}

const View = lazy<{ onReady: () => void }>(async () => (await import("./toast-view")).ToastView);

/** Where it is said. */
export function Toasts() {
  const any = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => said,
    () => false,
  );
  return any ? <View onReady={ready} /> : null;
}
