"use client";

import { bad, DEFECTS, defectOf, filledOf, good, PLACES, type Place, parseCount, SEVERITIES, type Severity, stoppedOf } from "@hearth/core";
import { useRouter } from "next/navigation";
import { RadioGroup } from "radix-ui";
import { type ReactNode, useMemo, useState } from "react";
import { FindBar, NothingFound, Older } from "@/catalogue/find-bar";
import { Field, type FieldRule, useFields } from "@/forms/fields";
import { BatchRow } from "@/log/row";
import { type BatchProps, useBatch } from "@/log/use-batch";
import type { Listed, ReadInstrument } from "@/server/batches";
import { JarSection } from "@/ui/jar-section";
import { useKeys } from "@/ui/keys";
import { Aside, Caution, Empty, Screen, Warn } from "@/ui/margin";
import { Said } from "@/ui/said";
import { useNow, useUnits } from "@/ui/units";
import { press } from "@/ui/variants";

const CLASS = { C: "cosmetic", P: "performance", S: "safety" } as const;

function Choices<T extends string>({ label, value, options, onValue }: { label: string; value: T | null; options: readonly T[]; onValue: (value: T) => void }) {
  return (
    <RadioGroup.Root aria-label={label} value={value ?? ""} onValueChange={(next) => onValue(next as T)} className="flex flex-wrap">
      {options.map((option) => (
        <RadioGroup.Item
          key={option}
          value={option}
          className="-mr-[2px] min-h-[56px] min-w-[86px] border-2 border-ink bg-sheet px-4 font-semibold data-[state=checked]:bg-ink data-[state=checked]:text-sheet"
        >
          {option}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}

/** One batch in the hand: tap where the flaw is, say which and how bad, on how many. */
export function LookOver(props: BatchProps & { notes?: ReactNode }) {
  const batch = useBatch(props, 30_000);
  const { plan, facts } = batch;
  const units = useUnits();
  const router = useRouter();
  const vessels = plan.products;
  const [vesselId, setVesselId] = useState(vessels[0]?.key ?? "");
  const [place, setPlace] = useState<Place | null>(null);
  const [severity, setSeverity] = useState<Severity | null>(null);
  const [said, setSaid] = useState("");
  const vessel = vessels.find((one) => one.key === vesselId) ?? vessels[0];
  const jars = vessels.reduce((sum, one) => sum + filledOf(plan, facts, one.key), 0);
  const stopped = vessels.reduce((sum, one) => sum + stoppedOf(plan, facts, one.key), 0);
  const rules = useMemo(
    () => ({
      defect: {
        initial: "",
        parse: (text: string) => (text ? good(text) : bad("empty", "Choose the flaw you see.")),
      } satisfies FieldRule<string>,
      jars: {
        initial: "1",
        parse: (text: string) => parseCount(text, { least: 1, most: vessel?.count ?? 1, name: vessel?.count === 1 ? "jar" : "jars" }),
      } satisfies FieldRule<number>,
    }),
    [vessel?.count],
  );
  const fields = useFields(rules);
  const defect = defectOf(fields.text("defect"));
  useKeys([{ key: "u", does: "take the last entry back", act: () => void batch.undo() }]);
  if (!vessel) return null;

  const setting = batch.phase === "setting";
  const add = async () => {
    const all = fields.check();
    if (!all) return;
    if (!place) return setSaid("Say where it is: tap the place on the drawing, or choose top, side, bottom or wick.");
    if (!severity) return setSaid("Say how bad it is: slight, clear or severe.");
    const refusal = await batch.record({ kind: "flaw", payload: { defect: all.defect, place, severity, product: vessel.key, jars: all.jars } });
    if (refusal) return setSaid(refusal.message);
    setSaid("");
    setPlace(null);
    setSeverity(null);
    fields.reset();
  };
  const finish = async () => {
    const refusal = await batch.record({ kind: "looked", payload: { jars } });
    if (refusal) return setSaid(refusal.message);
    router.push(`/records/${props.batch.id}`);
  };
  const mine = facts.flaws.filter((one) => one.flaw.product === vessel.key);

  return (
    <Screen
      gloved
      title={`Look over batch ${props.batch.number}: ${batch.title}`}
      lead={batch.pouredAt ? `Poured ${units.dayClock(batch.pouredAt)}, ${jars} jars` : "Not poured yet."}
      side={
        <>
          {!batch.pouredAt ? <Warn>Nothing is poured yet, so there is nothing to look over.</Warn> : null}
          {setting && batch.times ? (
            <Warn>Still setting until {units.dayClock(batch.times.setAt)}. Tops can change until then: look again when it has set.</Warn>
          ) : null}
          {defect ? (
            <>
              {defect.classes.includes("S") ? <Caution title="A safety matter">{defect.remedy}</Caution> : null}
              <Aside title={defect.name}>
                {defect.looks} ({defect.classes.map((one) => CLASS[one]).join(", ")})
              </Aside>
              <Aside title="Likely causes, most likely first">
                <ol className="list-decimal pl-5">
                  {defect.causes.map((cause) => (
                    <li key={cause}>{cause}</li>
                  ))}
                </ol>
              </Aside>
              <Aside title="Now">{defect.remedy}</Aside>
              <Aside title="Next batch, one change">{defect.nextBatch}</Aside>
            </>
          ) : (
            <Aside title="How to look">Hold each jar to the light. Count how many show the flaw: one jar in ten and ten in ten have different causes.</Aside>
          )}
          {stopped > 0 ? (
            <Caution title="Not for sale">
              {stopped} {stopped === 1 ? "jar has" : "jars have"} a safety flaw: never sold, and taken out of the count. {jars - stopped} remain.
            </Caution>
          ) : null}
          <Aside title="Flaws of burning">How it burns is seen in a burn test, not here: mushrooms, soot, tunnels and throw belong there.</Aside>
          <Caution title="Cracked glass">A cracked jar is thrown away: never sell it, never test it.</Caution>
        </>
      }
    >
      <div className="grid grid-cols-1 gap-6 xl:grid-cols-[300px_minmax(0,1fr)]">
        <section aria-label="The jar">
          {vessels.length > 1 ? (
            <div className="mb-3">
              <label htmlFor="vessel" className="mb-1 block text-[15px] font-semibold">
                Vessel
              </label>
              <select id="vessel" className="entry !min-h-[56px]" value={vessel.key} onChange={(event) => setVesselId(event.target.value)}>
                {vessels.map((one) => (
                  <option key={one.key} value={one.key}>
                    {one.count} × {one.name}
                  </option>
                ))}
              </select>
            </div>
          ) : (
            <p className="mb-2 font-semibold">
              {vessel.count} × {vessel.name}
            </p>
          )}
          <JarSection
            {...vessel}
            scale={Math.min(280 / (vessel.heightUm / 1_000 + 3), 184 / (Math.max(vessel.innerTopUm, vessel.innerBottomUm) / 1_000 + 6))}
            flaws={mine.map((one) => ({ ...one.flaw, safety: defectOf(one.flaw.defect)?.classes.includes("S") ?? false }))}
            place={place}
            onPlace={setPlace}
          />
          <p className="text-[14px] text-soft">Tap where the flaw is.</p>
        </section>
        <section className="sheet">
          <form
            ref={fields.form}
            onSubmit={(event) => {
              event.preventDefault();
              void add();
            }}
          >
            <h2 className="mb-2">A flaw</h2>
            <div className="grid gap-3">
              <div>
                <span className="mb-1 block text-[15px] font-semibold">Where</span>
                <Choices label="Where" value={place} options={PLACES} onValue={setPlace} />
              </div>
              <div>
                <span className="mb-1 block text-[15px] font-semibold">How bad</span>
                <Choices label="How bad" value={severity} options={SEVERITIES} onValue={setSeverity} />
              </div>
              <div className="grid gap-4 sm:grid-cols-[1fr_150px]">
                <Field
                  label="Which"
                  {...fields.bind("defect")}
                  options={[
                    { value: "", label: "choose" },
                    ...DEFECTS.filter((one) => one.seen === "set").map((one) => ({
                      value: one.id,
                      label: `${one.name}${one.classes.includes("S") ? " ⚠" : ""}`,
                    })),
                  ]}
                />
                <Field label={`On how many of ${vessel.count}`} {...fields.bind("jars")} inputMode="numeric" />
              </div>
            </div>
            <Said className="mt-2">{said}</Said>
            <button type="submit" className={press({ size: "gloved", className: "mt-2" })} disabled={!batch.pouredAt}>
              Add this flaw
            </button>
          </form>
          <h2 className="mt-6 border-b-[3px] border-ink pb-1">Seen so far</h2>
          {facts.flaws.length === 0 ? <p className="py-2 text-soft">No flaw noted yet. None to find is a result too.</p> : null}
          <ul>
            {facts.flaws.map((one) => {
              const known = defectOf(one.flaw.defect);
              const on = vessels.find((candidate) => candidate.key === one.flaw.product);
              return (
                <li key={one.eventId} className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-2">
                  <strong className={known?.classes.includes("S") ? "text-safety" : ""}>
                    {known?.classes.includes("S") ? "⚠ " : ""}
                    {known?.name}
                  </strong>
                  <span>
                    {one.flaw.severity}, {one.flaw.place}
                  </span>
                  <span className="figure text-[19px]">
                    {one.flaw.jars} of {on?.count}
                  </span>
                  <span className="text-soft">{on?.name}</span>
                  <button
                    type="button"
                    className="ml-auto min-h-[40px] underline"
                    onClick={() => void batch.record({ kind: "withdrawn", payload: { why: "", whole: true }, corrects: one.eventId })}
                    aria-label={`Take back ${known?.name}`}
                  >
                    Take back
                  </button>
                </li>
              );
            })}
          </ul>
          <button type="button" className="act mt-4" data-next-step onClick={() => void finish()} disabled={!batch.pouredAt}>
            {facts.flaws.length === 0 ? `All ${jars} jars are without flaw` : `Finish: ${jars} jars looked over`}
          </button>
        </section>
      </div>
      {props.notes}
    </Screen>
  );
}

/** The batches that can be looked over: those that are due first, however old. */
export function LookOverList({
  due,
  batches,
  instruments,
  more,
  narrowed,
}: {
  due: Listed[];
  batches: Listed[];
  instruments: ReadInstrument[];
  more: string | null;
  narrowed: boolean;
}) {
  const now = useNow(30_000);
  const rest = batches.filter((one) => !due.some((other) => other.id === one.id));
  return (
    <Screen
      title="Look-over"
      lead="Set candles, held to the light before they cure."
      side={
        <Aside title="Why every batch">
          The same flaw has several causes. What settles it is the record: what was different from the batches that were fine.
        </Aside>
      }
    >
      {batches.length + due.length > 0 || narrowed ? <FindBar what="what has set" found={more ? undefined : batches.length} /> : null}
      {batches.length + due.length === 0 && narrowed ? (
        <NothingFound what="batch" />
      ) : batches.length + due.length === 0 ? (
        <Empty title="Nothing has set yet">
          <p>When a poured batch has set, it comes here to be looked over: which flaws, where, how bad, on how many jars.</p>
        </Empty>
      ) : (
        <ul>
          {[...due, ...rest].map((one, index) => (
            <BatchRow
              key={one.id}
              batch={one}
              href={`/look-over/${one.id}`}
              instruments={instruments}
              first={index === 0 && due.length > 0}
              what={
                one.lookedAt
                  ? `looked over, ${one.flaws} ${one.flaws === 1 ? "flaw" : "flaws"}`
                  : one.times && Date.parse(one.times.setAt) > Date.parse(now)
                    ? "still setting"
                    : "to be looked over"
              }
              action={one.lookedAt ? "Look again" : "Look it over"}
            />
          ))}
        </ul>
      )}
      <Older after={more}>Older batches</Older>
    </Screen>
  );
}
