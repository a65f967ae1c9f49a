"use client";

import { releaseBlocks, type WickTest } from "@hearth/core";
import { type ReactNode, useState } from "react";
import { type BatchProps, useBatch } from "@/log/use-batch";
import { Link } from "@/ui/address";
import { CureBar, PHASE } from "@/ui/cure-bar";
import { useKeys } from "@/ui/keys";
import { Aside, Caution, Screen, Warn } from "@/ui/margin";
import { Said } from "@/ui/said";
import { useUnits } from "@/ui/units";
import { ColdThrow } from "./cold-throw";
import { Fates } from "./fates";
import { Standing } from "./standing";

interface OnRackProps extends BatchProps {
  shelves: string[];
  tests: { id: string; product: string; bodyId: string; test: WickTest }[];
  notes?: ReactNode;
}

/** One batch on the rack: when it is due, where it stands, what becomes of its jars, how it smells, whether it may be sold. */
export function OnRack(props: OnRackProps) {
  const batch = useBatch(props, 30_000);
  const { plan, facts, now } = batch;
  const units = useUnits();
  const [said, setSaid] = useState("");
  useKeys([{ key: "u", does: "take the last entry back", act: () => void batch.undo() }]);
  const blocks = [
    ...releaseBlocks(plan, facts, now),
    ...props.tests
      .filter((one) => one.test !== "tested")
      .map((one) => (one.test === "failed" ? `the wick of ${one.product} failed its burn test` : `the burn test of ${one.product} is due`)),
  ];
  const release = async () => setSaid((await batch.record({ kind: "released", payload: { note: "" } }))?.message ?? "");
  const rooms = [...new Set(facts.smells.map((one) => one.room).filter(Boolean))].reverse();
  return (
    <Screen
      gloved
      title={`Batch ${props.batch.number}: ${batch.title}`}
      lead={batch.pouredAt ? `Poured ${units.dayClock(batch.pouredAt)} · ${PHASE[batch.phase]}` : "Not poured yet."}
      actions={
        <>
          <Link
            className={batch.pouredAt && batch.phase !== "setting" && !facts.lookedAt ? "act" : "press"}
            href={`/look-over/${props.batch.id}`}
            data-next-step={batch.pouredAt && !facts.lookedAt ? "" : undefined}
          >
            Look it over
          </Link>
          <Link className="press" href={`/records/${props.batch.id}`}>
            Read its record
          </Link>
        </>
      }
      side={
        <>
          {!batch.pouredAt ? <Warn>Nothing is poured yet: nothing of it stands on the rack.</Warn> : null}
          {batch.phase === "setting" && batch.times ? <Warn>Do not move it until {units.dayClock(batch.times.setAt)}.</Warn> : null}
          <Aside title="Sun and draught">
            Direct sun makes candles sweat overnight; a draught cools one side first. What is noted here is held against flaws later.
          </Aside>
          <Aside title="Noses">One person's 9 is another's 7: each has a line of their own.</Aside>
          <Caution title="Test data is not a safety certificate">Labels, rules and insurance are your country's to say.</Caution>
        </>
      }
    >
      <CureBar times={batch.times} pouredAt={batch.pouredAt} now={now} />
      <section className="mt-3 border-y-[3px] border-ink py-3" aria-label="Release">
        {facts.released ? (
          <p className="text-[19px] font-bold text-inside">
            ✓ Released for sale {units.dayClock(facts.released.at)}{" "}
            <Link className="press ml-2" href="/sell/pack">
              Pack it
            </Link>
          </p>
        ) : blocks.length > 0 ? (
          <p>
            <strong>Not to be released yet:</strong> {blocks.join("; ")}.{" "}
            {props.tests
              .filter((one) => one.test !== "tested")
              .map((one) => (
                <Link key={one.id} className="mr-3 underline" href={`/burn/new?product=${one.id}`}>
                  Burn {one.product}
                </Link>
              ))}
          </p>
        ) : (
          <button type="button" className="act" data-next-step onClick={() => void release()}>
            Release it for sale
          </button>
        )}
        <Said>{said}</Said>
      </section>
      {batch.pouredAt ? (
        <div className="mt-5 grid grid-cols-1 gap-5 xl:grid-cols-2">
          <Fates batch={batch} />
          <Standing batch={batch} shelves={props.shelves} />
          <ColdThrow batch={batch} people={props.people} rooms={rooms} />
        </div>
      ) : null}
      {props.notes}
    </Screen>
  );
}
