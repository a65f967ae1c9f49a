import {
  apiError,
  burnAnswer,
  burnRequest,
  diagnoseAnswer,
  diagnoseRequest,
  fillRequest,
  fillResponse,
  forecastAnswer,
  forecastRequest,
  hazardAnswer,
  hazardRequest,
  quantityAnswer,
  quantityRequest,
  scaleRequest,
  scaleResponse,
  scheduleAnswer,
  scheduleRequest,
} from "@hearth/core";
import { z } from "zod";
import { burnSchema, recordSchema } from "@/server/http/published-schemas";

const input = (schema: z.ZodType) => z.toJSONSchema(schema, { io: "input" });

/** What other programs may call, with the JSON Schemas of what goes in and out. */
export function GET(): Response {
  return Response.json({
    name: "Hearth Jar calculation interface",
    version: "v1",
    members: [
      {
        method: "POST",
        path: "/api/v1/scale",
        does: "Wax, fragrance, additives and dye for vessels or from a weight, over pitchers where asked, with the working.",
        request: input(scaleRequest),
        response: z.toJSONSchema(scaleResponse),
        errors: { 400: z.toJSONSchema(apiError) },
      },
      {
        method: "POST",
        path: "/api/v1/fill",
        does: "The fill weight of a vessel, from the weight of water to the line or from its inner measures.",
        request: input(fillRequest),
        response: z.toJSONSchema(fillResponse),
        errors: { 400: z.toJSONSchema(apiError) },
      },
      {
        method: "POST",
        path: "/api/v1/schedule",
        does: "A schedule for jobs whose steps need people, burners and the like, with waits that have a least and a most. What cannot be is answered with the reason.",
        request: input(scheduleRequest),
        response: z.toJSONSchema(scheduleAnswer),
        errors: { 400: z.toJSONSchema(apiError) },
      },
      {
        method: "POST",
        path: "/api/v1/forecast",
        does: "When a pot reaches temperatures, with 80 % intervals, from its readings so far; readings that cannot belong to it are named and not used.",
        request: input(forecastRequest),
        response: z.toJSONSchema(forecastAnswer),
        errors: { 400: z.toJSONSchema(apiError) },
      },
      {
        method: "POST",
        path: "/api/v1/diagnose",
        does: "The known causes of a flaw, each with what the record says of it, and one change for next time.",
        request: input(diagnoseRequest),
        response: z.toJSONSchema(diagnoseAnswer),
        errors: { 400: z.toJSONSchema(apiError) },
      },
      {
        method: "POST",
        path: "/api/v1/burn",
        does: "What burn sessions of one candle say: safe or not, its pool, how fast it burns and how long still, and one change.",
        request: input(burnRequest),
        response: z.toJSONSchema(burnAnswer),
        errors: { 400: z.toJSONSchema(apiError) },
      },
      {
        method: "POST",
        path: "/api/v1/label/hazard",
        does: "The hazard label of a mixture as blended, as a draft to be checked by a competent person, with the sums it rests on.",
        request: input(hazardRequest),
        response: z.toJSONSchema(hazardAnswer),
        errors: { 400: z.toJSONSchema(apiError) },
      },
      {
        method: "POST",
        path: "/api/v1/net-quantity",
        does: "Whether packs hold what they state by the rules for packed goods, and which fill would pass with their spread.",
        request: input(quantityRequest),
        response: z.toJSONSchema(quantityAnswer),
        errors: { 400: z.toJSONSchema(apiError) },
      },
    ],
    documents: [
      { path: "/api/v1/schemas/batch-record.json", does: "The batch record that is exported and read back.", schema: recordSchema() },
      { path: "/api/v1/schemas/burn-record.json", does: "The burn trial that is exported and read back.", schema: burnSchema() },
    ],
  });
}
