import type { ShrinkAnswered } from "@/workers/shrink";

export interface Shrunk {
  /** As it is sent: a JPEG in base64. */
  jpeg: string;
  /** As it is shown before it is sent. */
  shown: string;
}

/** Makes a chosen picture small enough to keep, off the thread that draws the page; null if it cannot be read here. */
export async function shrunk(file: Blob): Promise<Shrunk | null> {
  const worker = new Worker(new URL("../workers/shrink.ts", import.meta.url), { type: "module" });
  const answer = await new Promise<ShrinkAnswered>((resolve) => {
    worker.onmessage = ({ data }: MessageEvent<ShrinkAnswered>) => resolve(data);
    worker.onerror = () => resolve({ ok: false });
    worker.postMessage(file);
  });
  worker.terminate();
  if (!answer.ok) return null;
  const shown = await new Promise<string>((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(reader.error);
    reader.readAsDataURL(answer.jpeg);
  });
  return { jpeg: shown.slice(shown.indexOf(",") + 1), shown };
}
