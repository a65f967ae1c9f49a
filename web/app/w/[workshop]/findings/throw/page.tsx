import { z } from "zod";
import { here } from "@/server/context";
import { askedPeriod, PERIOD_QUERY } from "@/server/period";
import { askedOf } from "@/server/query";
import { throwScores } from "@/server/throws";
import { ThrowFindings } from "@/stations/findings/throw";

export const metadata = { title: "Throw" };

export default async function ThrowPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await here();
  const asked = await askedOf(searchParams, { of: z.enum(["cold", "hot"]), ...PERIOD_QUERY });
  const { of = "hot" } = asked;
  const { period, choice } = await askedPeriod(db, workshop, asked, now);
  const scores = (await throwScores(db, workshop.id, null, period)).filter((one) => one.throw === of);
  return <ThrowFindings scores={scores} of={of} choice={choice} />;
}
