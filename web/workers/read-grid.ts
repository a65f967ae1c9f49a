import { type GridRead, gridOfFile, gridOfText } from "./grid-parse";

/** What is to be read: a file with its name, or text that was pasted. */
export type GridAsked = { file: File } | { text: string };

self.onmessage = async ({ data }: MessageEvent<GridAsked>) => {
  const read: GridRead = "text" in data ? gridOfText(data.text) : await gridOfFile(new Uint8Array(await data.file.arrayBuffer()), data.file.name);
  self.postMessage(read);
};
