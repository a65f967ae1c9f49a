"use client";

import type { Process } from "@hearth/core";
import { useState, useTransition } from "react";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import { saveFormula } from "@/server/formulas/formula-save";
import type { Follower } from "@/server/formulas/processes";
import { Link, useRouter } from "@/ui/address";
import { toast } from "@/ui/toast";

interface FollowersProps {
  process: { id: string; number: number; process: Process };
  followers: Follower[];
}

/** The formulas that are worked by this process, which version of it each has, and the way to bring them to the newest. */
export function Followers({ process: { id, number, process }, followers }: FollowersProps) {
  const workshop = useWorkshop();
  const router = useRouter();
  const [refused, setRefused] = useState<Record<string, string>>({});
  const [busy, start] = useTransition();
  const behind = followers.filter((follower) => follower.number < number);

  const save = async (item: Pick<Follower, "id" | "name" | "version" | "spec">) =>
    callAction(saveFormula(workshop, { id: item.id, expectedVersion: item.version, name: item.name, spec: item.spec }));
  const bring = (which: Follower[]) =>
    start(async () => {
      const faults: Record<string, string> = {};
      const brought: (Follower & { now: number })[] = [];
      for (const follower of which) {
        const outcome = await save({ ...follower, spec: { ...follower.spec, process: { ...process, from: { id, number } } } });
        if (!outcome.ok) faults[follower.id] = outcome.message;
        else if (outcome.value.stale) faults[follower.id] = "Somebody else changed this formula. Look at it again.";
        else brought.push({ ...follower, now: outcome.value.version });
      }
      setRefused(faults);
      router.refresh();
      if (brought.length === 0) return;
      toast(brought.length === 1 ? `${brought[0]?.name} is on version ${number} now.` : `${brought.length} formulas are on version ${number} now.`, {
        action: {
          label: "Undo",
          onClick: () =>
            void (async () => {
              for (const item of brought) {
                const back = await save({ ...item, version: item.now });
                if (!back.ok || back.value.stale) toast(back.ok ? `${item.name} was changed again since: it stays as it is.` : back.message);
              }
              router.refresh();
            })(),
        },
      });
    });
  return (
    <section className="sheet mt-5" aria-labelledby="followers">
      <h2 id="followers">Formulas with this process</h2>
      {followers.length === 0 ? (
        <p className="text-soft">None yet. Choose this process on a formula.</p>
      ) : (
        <>
          <ul>
            {followers.map((follower) => (
              <li key={follower.id} className="grid items-center gap-x-4 gap-y-1 border-b border-line py-2 sm:grid-cols-[minmax(0,1fr)_auto]">
                <div className="min-w-0">
                  <Link href={`/formulas/${follower.id}`} className="text-[18px] font-bold">
                    {follower.name}
                  </Link>
                  <div className={follower.number < number ? "text-hot" : "text-soft"}>
                    {follower.number < number ? `▲ still on version ${follower.number}` : `✓ on version ${follower.number}`}
                    {follower.changed ? ", with changes of its own" : ""}
                  </div>
                  {refused[follower.id] ? (
                    <p role="alert" className="text-hot">
                      ▲ {refused[follower.id]}
                    </p>
                  ) : null}
                </div>
                {follower.number < number ? (
                  <button
                    type="button"
                    className="press"
                    disabled={busy}
                    onClick={() => bring([follower])}
                    aria-label={`Update ${follower.name} to version ${number}`}
                  >
                    {follower.changed ? `Update to version ${number}, discarding its changes` : `Update to version ${number}`}
                  </button>
                ) : null}
              </li>
            ))}
          </ul>
          {behind.length > 1 && behind.every((follower) => !follower.changed) ? (
            <button type="button" className="press mt-3" disabled={busy} onClick={() => bring(behind)}>
              Update all {behind.length} to version {number}
            </button>
          ) : null}
          <p className="mt-2 text-[15px] text-soft">A formula keeps its version of the process until you update it. Batches keep theirs for good.</p>
        </>
      )}
    </section>
  );
}
