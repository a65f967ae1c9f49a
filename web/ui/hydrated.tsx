"use client";

import { useEffect } from "react";

/** Sets `data-hydrated` on the document once React listens; tests press nothing before. */
export function HydrationMark() {
  useEffect(() => {
    document.documentElement.dataset.hydrated = "yes";
  }, []);
  return null;
}
