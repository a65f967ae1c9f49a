import { z } from "zod";

/** "78-70-6" and "201-134-4": the numbers of a substance in the registry of chemical abstracts, and in the European inventory. */
export const casNumber = z
  .string()
  .trim()
  .regex(/^\d{2,7}-\d{2}-\d$/, "A CAS number is written like 64-17-5.");
export const ecNumber = z
  .string()
  .trim()
  .regex(/^\d{3}-\d{3}-\d$/, "An EC number is written like 200-578-6.");
