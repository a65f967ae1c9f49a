"use client";

import { useEffect, useState } from "react";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import { renewCalendar } from "@/server/planning/commands";
import { useRouter } from "@/ui/address";
import { toast } from "@/ui/toast";

/** The address from which a calendar program reads pours, sets, cures and tests. */
export function CalendarAddress({ calendarKey }: { calendarKey: string | null }) {
  const workshop = useWorkshop();
  const router = useRouter();
  const [origin, setOrigin] = useState("");
  useEffect(() => setOrigin(window.location.origin), []);
  const address = calendarKey ? `${origin}/api/calendar/${calendarKey}.ics` : "";
  const renew = async () => {
    const out = await callAction(renewCalendar(workshop, {}));
    if (!out.ok) return toast(out.message);
    router.refresh();
    toast(calendarKey ? "New calendar address created. The old one no longer works." : "The calendar has an address.");
  };
  return (
    <section aria-label="Calendar" className="unprinted text-[15px]">
      <h2 className="text-[17px]">In your calendar</h2>
      {calendarKey ? (
        <>
          <p className="mt-1">Give this address to a calendar program. Anyone who knows it can read the plan.</p>
          <p className="mt-1 font-mono text-[13px] break-all">{address}</p>
          <p className="mt-1 flex flex-wrap gap-2">
            <button
              type="button"
              className="press"
              onClick={() =>
                void navigator.clipboard.writeText(address).then(
                  () => toast("Copied."),
                  () => toast("It could not be copied: select it and copy it by hand."),
                )
              }
            >
              Copy
            </button>
            <button type="button" className="press" onClick={() => void renew()}>
              New address
            </button>
          </p>
        </>
      ) : (
        <>
          <p className="mt-1">Pours, later pours, ends of set and cure, and tests, as a calendar that follows the plan.</p>
          <button type="button" className="press mt-1" onClick={() => void renew()}>
            Create calendar address
          </button>
        </>
      )}
    </section>
  );
}
