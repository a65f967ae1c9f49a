import { parentPort, workerData } from "node:worker_threads";
import { drawPaper, type PaperJob } from "../server/paper/draw";

/** The thread in which a paper is drawn. */
void drawPaper(workerData as PaperJob).then((pdf) => parentPort?.postMessage(pdf));
