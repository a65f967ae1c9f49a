import { drawPaper, type PaperJob } from "../server/paper/draw";

/** The thread in which a paper is drawn. */
export const work = (job: PaperJob): ReturnType<typeof drawPaper> => drawPaper(job);
