import { z } from "zod";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { throwScores } from "@/server/throws";
import { ThrowFindings } from "@/stations/findings/throw";

export const metadata = { title: "Throw" };

export default async function ThrowPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await here();
  const { of = "hot" } = await askedOf(searchParams, { of: z.enum(["cold", "hot"]) });
  const scores = (await throwScores(db, workshop.id)).filter((one) => one.throw === of);
  return <ThrowFindings scores={scores} of={of} />;
}
