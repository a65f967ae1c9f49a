import { batchRecord } from "@hearth/core";
import { z } from "zod";

/** The published schema of a batch record, by which it names itself. */
export const recordSchema = () => ({
  $id: "urn:hearth-jar:batch-record",
  title: "Batch record of Hearth Jar",
  ...z.toJSONSchema(batchRecord, { io: "input" }),
});
