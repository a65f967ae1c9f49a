import { dayAt } from "@hearth/core";
import { z } from "zod";
import { workshopRoute } from "@/server/auth/authorize";
import { readTrial } from "@/server/burn/trials";
import { errorResponse } from "@/server/http/respond";
import { paperSizeAsked, pdfResponse, workshopAddress } from "@/server/paper/answer";
import { paperInThread } from "@/server/paper/draw";

/** The burn sheet of a trial for a clipboard, as PDF in `size` a4 or letter: filled with what is known, empty where checks are to be written. */
export const GET = workshopRoute(
  { area: "burn", action: "see" },
  { trial: z.uuid() },
  "There is no such trial in this workshop.",
  async (request, { db, workshop, named }) => {
    const trial = await readTrial(db, workshop.id, named.trial);
    if (!trial) return errorResponse(404, "There is no such trial in this workshop.");
    const size = paperSizeAsked(request, workshop.locale);
    if (!size) return errorResponse(400, "Ask for size a4 or letter.");
    const { number, plan, state } = trial;
    const sheet = { number, plan, state, day: dayAt(state.startedAt, workshop.timeZone), address: `${workshopAddress(request, workshop.id)}/burn/${trial.id}` };
    const { locale, massUnit, lengthUnit, temperatureUnit } = workshop;
    const pdf = await paperInThread({ what: "burn", sheet, size, units: { locale, massUnit, lengthUnit, temperatureUnit } }, request.signal);
    return pdf ? pdfResponse(pdf, `burn-sheet-${number}`) : errorResponse(500, "This could not be drawn.");
  },
);
