import { cookies } from "next/headers";
import type { ReactNode } from "react";
import { waitingCounts } from "@/stations/batch/lists";
import { here } from "@/stations/frame/context";
import { Frame } from "@/stations/frame/frame";

export const dynamic = "force-dynamic";

export default async function WorkLayout({ children }: { children: ReactNode }) {
  const at = await here();
  const waiting = await waitingCounts(at.db, at.workshop.id, at.now);
  return (
    <Frame
      units={at.units}
      now={at.now}
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
