import { batchRecord, burnRecord } from "@hearth/core";
import { z } from "zod";

/** Returns the published schema of a batch record, by which it names itself. */
export const recordSchema = () => ({
  $id: "urn:hearth-jar:batch-record",
  title: "Batch record of Hearth Jar",
  ...z.toJSONSchema(batchRecord, { io: "input" }),
});

/** Returns the published schema of a burn record. */
export const burnSchema = () => ({
  $id: "urn:hearth-jar:burn-record",
  title: "Burn record of Hearth Jar",
  ...z.toJSONSchema(burnRecord, { io: "input" }),
});
