/** A time, in ms by this device's clock, at which a bell rings. */
export interface Bell {
  key: string;
  at: number;
}

const timers = new Set<ReturnType<typeof setTimeout>>();
/** A timer takes no longer than this; farther ones are set again. */
const FARTHEST_MS = 2_000_000_000;

function set(bell: Bell): void {
  const wait = bell.at - Date.now();
  const timer = setTimeout(
    () => {
      timers.delete(timer);
      if (wait > FARTHEST_MS) set(bell);
      else postMessage(bell.key);
    },
    Math.min(FARTHEST_MS, Math.max(0, wait)),
  );
  timers.add(timer);
}

self.onmessage = ({ data }: MessageEvent<Bell[]>) => {
  for (const timer of timers) clearTimeout(timer);
  timers.clear();
  for (const bell of data) set(bell);
};
