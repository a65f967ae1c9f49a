"use client";

import type { ReactNode } from "react";
import type { useWidth } from "./size";

/**
 * A drawing as wide as its place, measured by `useWidth`: it is drawn anew at each width and not scaled, so that its letters keep their size on a
 * phone. Until its place is measured it is made smaller where it is too wide, so that the page is not wider than the screen.
 */
export function SizedSvg({
  size: { ref, width },
  height,
  label,
  children,
}: {
  size: ReturnType<typeof useWidth<HTMLDivElement>>;
  height: number;
  label: string;
  children: ReactNode;
}) {
  return (
    <div ref={ref}>
      <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} className="block max-w-full" role="img" aria-label={label}>
        {children}
      </svg>
    </div>
  );
}
