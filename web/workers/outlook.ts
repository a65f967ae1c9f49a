import { type Outlook, outlookOf, type Watch } from "@hearth/core";

export interface Asked {
  id: number;
  watch: Watch;
}
export interface Foretold {
  id: number;
  outlook: Outlook;
}

/** Works out what is foreseen of a pot, each time it is asked. */
self.onmessage = ({ data }: MessageEvent<Asked>) => self.postMessage({ id: data.id, outlook: outlookOf(data.watch) } satisfies Foretold);
