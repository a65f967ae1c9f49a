import { LeftoversError, type Mixture, type Programme } from "@hearth/core";
import loadHighs from "highs";
import { solveProgramme } from "./solve";

export type Asked = { id: number; programme: Programme; seconds: number };
export type Answered = { id: number } & ({ ok: true; mixture: Mixture } | { ok: false; message: string });

const solver = loadHighs({ locateFile: () => new URL("highs/runtime", import.meta.url).href });

self.onmessage = async ({ data }: MessageEvent<Asked>) => {
  let answer: Answered;
  try {
    answer = { id: data.id, ok: true, mixture: solveProgramme(await solver, data.programme, data.seconds) };
  } catch (error) {
    answer = { id: data.id, ok: false, message: error instanceof LeftoversError ? error.message : "The solver stopped. Change something and try again." };
  }
  self.postMessage(answer);
};
