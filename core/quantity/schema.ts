import { z } from "zod";
import { MAX_STATED_G, MIN_STATED_G } from "./rules";

export const quantityRequest = z.object({
  stated_g: z
    .number()
    .min(MIN_STATED_G, `The rules for packed goods begin at ${MIN_STATED_G} g.`)
    .max(MAX_STATED_G, `The rules for packed goods end at ${MAX_STATED_G / 1_000} kg.`),
  weights_g: z.array(z.number().positive("A weight is above 0.").max(100_000)).min(1, "At least one weight.").max(100_000).describe("net, without the vessel"),
  lot: z.number().int().min(1).max(10_000_000).optional().describe("how many packs there are: where all are weighed they are judged as the whole lot"),
  rules: z.enum(["eu", "us"]).default("eu").describe("eu: directive 76/211/EEC; us: NIST Handbook 133"),
});
export type QuantityRequest = z.input<typeof quantityRequest>;

export const quantityAnswer = z.object({
  mean_g: z.number(),
  sd_g: z.number().nullable().describe("of the sample; null with one weight"),
  tolerable_negative_error_g: z.number().describe("in the US the maximum allowable variation"),
  below: z.number().int().describe("packs that fall short by more than the tolerable error"),
  may_fall_short: z.number().int().describe("as many of those weighed may fall short by more than the error"),
  below_twice: z.number().int().describe("packs that fall short by more than twice of it: by the European rules none may be sold"),
  mean_limit_g: z.number().nullable().describe("the mean must reach it"),
  verdict: z.enum(["pass", "fail", "too_few"]),
  why: z.string(),
  fill_to_pass_g: z.number().nullable().describe("the mean fill, up to the next tenth of a gram, whose lots pass with this spread in at least 90 of 100 cases"),
  fill_passes_share: z.number().nullable().describe("in how large a share of cases a lot of that fill passes, at least"),
});
export type QuantityAnswer = z.output<typeof quantityAnswer>;
