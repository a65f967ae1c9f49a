import { mayOpen, readZoneOffsets } from "@hearth/core";
import { cookies } from "next/headers";
import type { ReactNode } from "react";
import { readEpoch } from "@/data/epoch";
import { Frame } from "@/features/shell/frame";
import { waitingCounts } from "@/server/batches/batches";
import { requestContext } from "@/server/http/context";
import { chosenLight } from "@/ui/chosen-light";
import { SECTIONS } from "./sections";

export const dynamic = "force-dynamic";

/** The offsets of the zone go with a page for so long before and after now: what a page shows is seldom older. */
const AROUND_MS = 400 * 86_400_000;

export default async function WorkLayout({ children }: { children: ReactNode }) {
  const at = await requestContext();
  const [waiting, epoch] = await Promise.all([waitingCounts(at.db, at.workshop, at.now), readEpoch(at.db)]);
  const now = Date.parse(at.now);
  return (
    <Frame
      sections={SECTIONS.filter((section) => mayOpen(at.who.role, section.path))}
      known={at.who.device ? "device" : at.who.account ? "account" : "alone"}
      role={at.who.role}
      leavesAt={at.workshop.leavesAt ? new Date(at.workshop.leavesAt).toISOString() : null}
      units={at.units}
      offsets={readZoneOffsets(at.workshop.timeZone, now - AROUND_MS, now + AROUND_MS)}
      now={at.now}
      mark={at.mark}
      epoch={epoch}
      frozen={at.frozen}
      workshop={{ id: at.workshop.id, name: at.workshop.name }}
      workshops={at.workshops}
      people={at.people}
      person={at.person?.id ?? null}
      light={chosenLight((await cookies()).get("hearth_light")?.value)}
      waiting={waiting}
    >
      {children}
    </Frame>
  );
}
