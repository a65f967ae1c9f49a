"use client";

import { useUnits } from "./units";

/** What stands in the way, said aloud; nothing where there is nothing to say. */
export function FormMessage({ children, className = "mt-1" }: { children: string; className?: string }) {
  const units = useUnits();
  return children ? (
    <p role="alert" className={`${className} font-semibold text-hot`}>
      ▲ {units.inUnits(children)}
    </p>
  ) : null;
}
