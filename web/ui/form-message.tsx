"use client";

import { useUnits } from "./units";

/** The message of a form that was refused, announced to screen readers; nothing where there is none. */
export function FormMessage({ children, className = "mt-1" }: { children: string; className?: string }) {
  const units = useUnits();
  return children ? (
    <p role="alert" className={`${className} font-semibold text-hot`}>
      ▲ {units.inUnits(children)}
    </p>
  ) : null;
}
