"use client";

import { type ComponentType, useEffect, useState } from "react";

/**
 * A part of a page that is loaded when it is first shown: what is seldom opened costs nothing until then. Until it is there, `Meanwhile`
 * stands in its place; `ahead` loads it when somebody comes near it.
 */
export function later<P extends object>(load: () => Promise<ComponentType<P>>, Meanwhile: ComponentType<P> | null = null) {
  let got: ComponentType<P> | null = null;
  const ahead = async (): Promise<ComponentType<P>> => {
    got ??= await load();
    return got;
  };
  function Later(props: P) {
    const [Shown, show] = useState(() => got);
    const [failed, fail] = useState(false);
    useEffect(() => {
      if (Shown) return;
      let left = false;
      ahead().then(
        (one) => !left && show(() => one),
        () => !left && fail(true),
      );
      return () => {
        left = true;
      };
    }, [Shown]);
    if (Shown) return <Shown {...props} />;
    return (
      <>
        {Meanwhile ? <Meanwhile {...props} /> : null}
        {failed ? (
          <p role="alert" className="sheet fixed bottom-3 left-3 z-50 max-w-[90vw]">
            ▲ This part of the program could not be loaded. Close it, and try again when the workshop can be reached.
          </p>
        ) : null}
      </>
    );
  }
  return Object.assign(Later, { ahead: () => void ahead().catch(() => undefined) });
}

/** Loads what is sure to be needed once the page stands and the browser rests, so that it is there when the network is not. */
export function useSoon(...parts: readonly { ahead: () => void }[]): void {
  useEffect(() => {
    const load = () => {
      for (const part of parts) part.ahead();
    };
    if (!window.requestIdleCallback) {
      const timer = setTimeout(load, 1_000);
      return () => clearTimeout(timer);
    }
    const idle = requestIdleCallback(load, { timeout: 2_000 });
    return () => cancelIdleCallback(idle);
    // The parts of a page are always the same.
  }, [...parts]);
}
