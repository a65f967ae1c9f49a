"use client";

import { useState } from "react";
import { callAction } from "@/forms/call-action";
import { Field, useFields, words } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { scheduleWorkshopDeletion } from "@/server/people/commands";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { useUnits } from "@/ui/units";

/** Downloads everything in the workshop, and deletes the workshop after thirty days. */
export function WorkshopData({ leavesAt }: { leavesAt: string | null }) {
  const workshop = useWorkshop();
  const router = useRouter();
  const units = useUnits();
  const [rules] = useState(() => ({ name: words() }));
  const fields = useFields(rules);
  const [open, setOpen] = useState(false);
  const [message, setMessage] = useState("");
  const go = async (on: boolean) => {
    const outcome = await callAction(scheduleWorkshopDeletion(workshop, { go: on, name: fields.text("name") }));
    if (!outcome.ok) {
      fields.refuse(outcome.fields);
      return setMessage(outcome.message);
    }
    setOpen(false);
    setMessage("");
    router.refresh();
  };
  return (
    <section className="mt-7 max-w-[980px]">
      <h2>The whole workshop</h2>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <a className="press" href={`/api/workshops/${workshop.workshopId}/whole`} download>
          Download everything
        </a>
        {leavesAt ? (
          <button type="button" className="action-button" onClick={() => void go(false)}>
            Cancel deletion
          </button>
        ) : (
          <button type="button" className="press" aria-expanded={open} onClick={() => setOpen(!open)}>
            Delete the workshop…
          </button>
        )}
      </div>
      {leavesAt ? <p className="mt-2 font-semibold text-hot">▲ It will be deleted on {units.dayClock(leavesAt)}, with every record in it.</p> : null}
      {open ? (
        <form
          ref={fields.form}
          className="sheet mt-3 max-w-[560px]"
          onSubmit={(event) => {
            event.preventDefault();
            void go(true);
          }}
        >
          <p>All formulas, records, orders and photographs of this workshop are deleted. For thirty days you can cancel this. Download everything first.</p>
          <Field label="Name of the workshop" {...fields.bind("name")} hint="Type the name to confirm." />
          <button type="submit" className="press">
            Delete it in thirty days
          </button>
          <FormMessage>{message}</FormMessage>
        </form>
      ) : null}
    </section>
  );
}
