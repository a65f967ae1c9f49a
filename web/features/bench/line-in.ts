import { LineReader, type Message } from "@hearth/core";

/** What of a serial port is used here; browsers without it have none. */
interface SerialPort {
  readable: ReadableStream<Uint8Array> | null;
  writable: WritableStream<Uint8Array> | null;
  open(options: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
}
interface Serial {
  requestPort(): Promise<SerialPort>;
}
const serial = (): Serial | null => (navigator as { serial?: Serial }).serial ?? null;

/** Returns whether this browser can listen to a serial port. */
export const hasSerial = (): boolean => typeof navigator !== "undefined" && serial() !== null;

/** Speed of the line: common to plain instruments, no source. */
const BAUD = 9_600;

export interface Line {
  /** Sends a line to the instrument. */
  tell(text: string): Promise<void>;
  stop(): void;
}
interface Heard {
  onMessage(message: Message): void;
  /** The line ended: by itself, with what to say about it. */
  onEnd(why: string): void;
}

/** Hands on what a stream says until it ends or is stopped. */
async function listen(stream: ReadableStream<Uint8Array>, { onMessage, onEnd }: Heard, isStopped: () => boolean, why: string): Promise<void> {
  const lines = new LineReader();
  const decoder = new TextDecoder("latin1");
  const reader = stream.getReader();
  try {
    for (;;) {
      const { done, value } = await reader.read();
      if (done) break;
      for (const message of lines.take(decoder.decode(value, { stream: true })).messages) onMessage(message);
    }
  } catch {
    // Pulled out, or the network is gone: said below.
  } finally {
    reader.releaseLock();
  }
  if (!isStopped()) onEnd(why);
}

/** Opens a serial port that the maker chooses. Rejects where none is chosen. */
export async function openSerial(heard: Heard): Promise<Line> {
  const port = await (serial() as Serial).requestPort();
  await port.open({ baudRate: BAUD });
  if (!port.readable) throw new Error("nothing to read");
  let stopped = false;
  const canceller = new AbortController();
  const piped = port.readable.pipeThrough(new TransformStream<Uint8Array, Uint8Array>(), { signal: canceller.signal });
  void listen(piped, heard, () => stopped, "The instrument is disconnected. Check its cable, and connect it again.").finally(
    () => void port.close().catch(() => undefined),
  );
  return {
    tell: async (text) => {
      const writer = port.writable?.getWriter();
      await writer?.write(new TextEncoder().encode(`${text}\n`));
      writer?.releaseLock();
    },
    stop: () => {
      stopped = true;
      canceller.abort();
    },
  };
}

/** Listens to the simulated instruments of this workshop. Rejects with what to do where they do not run. */
export async function openSimulated(workshopId: string, kind: "probe" | "scale", heard: Heard): Promise<Line> {
  const path = `/api/workshops/${workshopId}/instruments/${kind}`;
  const canceller = new AbortController();
  const answer = await fetch(path, { signal: canceller.signal });
  if (!answer.ok || !answer.body) {
    const told = (await answer.json().catch(() => null)) as { error?: { message?: string } } | null;
    throw new Error(told?.error?.message ?? "The workshop cannot be reached.");
  }
  let stopped = false;
  void listen(answer.body, heard, () => stopped, "The simulated instrument stopped. Start it again, and connect it.");
  return {
    tell: async (text) =>
      void (await fetch(path, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify({ tell: text }) }).catch(
        () => undefined,
      )),
    stop: () => {
      stopped = true;
      canceller.abort();
    },
  };
}
