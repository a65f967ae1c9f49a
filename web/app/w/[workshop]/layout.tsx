import { mayOpen } from "@hearth/core";
import { cookies } from "next/headers";
import type { ReactNode } from "react";
import { readEpoch } from "@/data/epoch";
import { waitingCounts } from "@/server/batches";
import { here } from "@/server/context";
import { Frame } from "@/stations/frame/frame";
import { STATIONS } from "./stations";

export const dynamic = "force-dynamic";

export default async function WorkLayout({ children }: { children: ReactNode }) {
  const at = await here();
  const [waiting, epoch] = await Promise.all([waitingCounts(at.db, at.workshop, at.now), readEpoch(at.db)]);
  return (
    <Frame
      stations={STATIONS.filter((one) => mayOpen(at.who.role, one.path))}
      known={at.who.device ? "device" : at.who.account ? "account" : "alone"}
      role={at.who.role}
      leavesAt={at.workshop.leavesAt ? new Date(at.workshop.leavesAt).toISOString() : null}
      units={at.units}
      now={at.now}
      mark={at.mark}
      epoch={epoch}
      frozen={at.frozen}
      workshop={{ id: at.workshop.id, name: at.workshop.name }}
      workshops={at.workshops}
      people={at.people}
      person={at.person?.id ?? null}
      evening={(await cookies()).get("hearth_light")?.value === "evening"}
      waiting={waiting}
    >
      {children}
    </Frame>
  );
}
