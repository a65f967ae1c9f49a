"use client";

import { type ComponentType, useEffect, useLayoutEffect, useState } from "react";
import { keepTyping } from "./keep-typing";

/** A part that could not be loaded is tried again so much later, and as soon as the network is back. */
const AGAIN_MS = 5_000;
/** A part that takes typing takes the focus within so long once it is shown. */
const FOCUS_MS = 1_000;

/**
 * A part of a page that is loaded when it is first shown: what is seldom opened costs nothing until then. Until it is there, `Meanwhile`
 * stands in its place; `ahead` loads it when somebody comes near it. With `typed`, what is typed until it has the focus is kept for its field. With `idle`,
 * it is loaded once the page can be used: what is looked at and not worked with.
 */
export function lazy<P extends object>(
  load: () => Promise<ComponentType<P>>,
  { Meanwhile = null, typed = false, idle = false }: { Meanwhile?: ComponentType<P> | null; typed?: boolean; idle?: boolean } = {},
) {
  let got: ComponentType<P> | null = null;
  const ahead = async (): Promise<ComponentType<P>> => {
    got ??= await load();
    return got;
  };
  function Later(props: P) {
    const [Shown, show] = useState(() => got);
    const [failed, fail] = useState(false);
    const [closed, close] = useState(false);
    useKeptTyping(typed && !Shown);
    useEffect(() => {
      if (Shown) return;
      let left = false;
      let timer: ReturnType<typeof setTimeout> | undefined;
      const load = () => {
        clearTimeout(timer);
        ahead().then(
          (componentType) => !left && show(() => componentType),
          () => {
            if (left) return;
            fail(true);
            timer = setTimeout(load, AGAIN_MS);
          },
        );
      };
      const callOff = idle ? whenIdle(load) : load();
      window.addEventListener("online", load);
      return () => {
        left = true;
        callOff?.();
        clearTimeout(timer);
        window.removeEventListener("online", load);
      };
    }, [Shown]);
    if (Shown) return <Shown {...props} />;
    return (
      <>
        {Meanwhile ? <Meanwhile {...props} /> : null}
        {failed && !closed ? (
          <div role="alert" className="sheet fixed bottom-3 left-3 z-50 flex max-w-[90vw] items-center gap-3">
            <p>▲ A part of this page could not be loaded. It is loaded when the workshop can be reached.</p>
            <button type="button" className="press" onClick={() => close(true)}>
              Close
            </button>
          </div>
        ) : null}
      </>
    );
  }
  return Object.assign(Later, { ahead: () => void ahead().catch(() => undefined) });
}

/** Keeps what is typed for as long as it is asked for, and a little longer: until the part that was loaded has taken the focus. */
function useKeptTyping(wanted: boolean): void {
  useLayoutEffect(() => {
    if (!wanted) return;
    const end = keepTyping();
    return () => void setTimeout(end, FOCUS_MS);
  }, [wanted]);
}

/** Runs something once the page can be used and the browser rests. Returns what calls it off. */
function whenIdle(run: () => void): () => void {
  if (!window.requestIdleCallback) {
    const timer = setTimeout(run, 1_000);
    return () => clearTimeout(timer);
  }
  const idle = requestIdleCallback(run, { timeout: 2_000 });
  return () => cancelIdleCallback(idle);
}

/** Loads what is sure to be needed once the page stands and the browser rests, so that it is there when the network is not. */
export function usePreload(...parts: readonly { ahead: () => void }[]): void {
  useEffect(
    () =>
      whenIdle(() => {
        for (const part of parts) part.ahead();
      }),
    // The parts of a page are always the same.
    [...parts],
  );
}
