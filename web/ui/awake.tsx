"use client";

import { useEffect } from "react";

/** Marks the document once it listens: what is drawn by the server is pressed only then. */
export function Awake() {
  useEffect(() => {
    document.documentElement.dataset.awake = "yes";
  }, []);
  return null;
}
