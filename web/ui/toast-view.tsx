"use client";

import { useEffect } from "react";
import { Toaster } from "sonner";

export function ToastView({ onReady }: { onReady: () => void }) {
  useEffect(onReady, [onReady]);
  return (
    <Toaster
      position="bottom-left"
      duration={8_000}
      toastOptions={{ classNames: { toast: "!rounded-none !border-[3px] !border-ink !bg-sheet !text-ink !text-[16px]" } }}
    />
  );
}
