"use client";

import {
  type Cause,
  DEFAULT_GRADES,
  defectOf,
  filledOf,
  GRADES,
  type GradingRules,
  gradeOf,
  howBad,
  namedLines,
  PLACE_WORDS,
  type Place,
  type SeenFlaw,
  stoppedOf,
  toldOf,
  type WallSpot,
} from "@hearth/core";
import { type ReactNode, useMemo, useState } from "react";
import { type BatchProps, useBatch } from "@/log/use-batch";
import { Link, useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { JarSection } from "@/ui/jar-section";
import { useKeys } from "@/ui/keys";
import { Aside, Caution, PageLayout, Warn } from "@/ui/side-notes";
import { useUnits } from "@/ui/units";
import { JarInHand } from "./jar-in-hand";
import { EMPTY_HAND, type InHand, lastSeen, progressOf } from "./model";
import { Repairs } from "./repairs";

const CLASS = { C: "cosmetic", P: "performance", S: "safety" } as const;

/** Flaws as they were logged, jar by jar; those of earlier records too. */
function SeenSoFar({ batch, rules }: { batch: ReturnType<typeof useBatch>; rules: GradingRules }) {
  const { plan, state } = batch;
  const several = plan.products.length > 1;
  const name = (key: string) => namedLines(plan.products).find((line) => line.key === key)?.name ?? "";
  const groups = new Map<string, { jars: number; product: string; flaws: (typeof state.flaws)[number]["flaw"][] }>();
  for (const item of state.seen) groups.set(item.eventId, { jars: item.jars, product: item.product, flaws: [] });
  for (const { eventId, flaw } of state.flaws) {
    const group = groups.get(eventId) ?? { jars: flaw.jars, product: flaw.product, flaws: [] };
    group.flaws.push(flaw);
    groups.set(eventId, group);
  }
  const fine = [...groups].filter(([, item]) => item.flaws.length === 0);
  const total = fine.reduce((sum, [, item]) => sum + item.jars, 0);
  const newest = fine.at(-1)?.[0];
  return (
    <ul>
      {total > 0 ? (
        <li className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-2">
          <strong className="text-inside">✓ fine</strong>
          <span className="figure text-[19px]">{total}</span>
          {newest ? (
            <button
              type="button"
              className="ml-auto min-h-[48px] underline"
              onClick={() => void batch.record({ kind: "withdrawn", payload: { why: "", mode: "delete" }, corrects: newest })}
            >
              Undo last jar
            </button>
          ) : null}
        </li>
      ) : null}
      {[...groups].map(([id, item]) =>
        item.flaws.length === 0 ? null : (
          <li key={id} className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-2">
            <span className="figure text-[19px]">{item.jars} ×</span>
            {item.flaws.map((flaw) => {
              const known = defectOf(flaw.defect);
              const unsafe = known?.classes.includes("S");
              return (
                <span key={`${flaw.defect}${flaw.place}${flaw.wall?.side}${flaw.wall?.height}`}>
                  <strong className={unsafe ? "text-safety" : ""}>
                    {unsafe ? "⚠ " : ""}
                    {known?.name}
                  </strong>{" "}
                  {howBad(flaw)}, {PLACE_WORDS[flaw.place]}
                </span>
              );
            })}
            {several ? <span className="text-soft">{name(item.product)}</span> : null}
            <strong className="ml-auto">{gradeOf(item.flaws, rules)}</strong>
            <button
              type="button"
              className="min-h-[48px] underline"
              onClick={() => void batch.record({ kind: "withdrawn", payload: { why: "", mode: "delete" }, corrects: id })}
              aria-label={`Delete ${item.flaws.map((flaw) => defectOf(flaw.defect)?.name).join(", ")}`}
            >
              Delete
            </button>
          </li>
        ),
      )}
    </ul>
  );
}

/** Returns how many jars of each grade, so far. */
function gradesOf(state: ReturnType<typeof useBatch>["state"], rules: GradingRules): [string, number][] {
  const round = Math.max(...state.seen.map((item) => item.round), 0);
  const counts = new Map<string, number>();
  for (const item of state.seen) {
    if (item.round !== round) continue;
    const grade = gradeOf(item.flaws, rules);
    counts.set(grade, (counts.get(grade) ?? 0) + item.jars);
  }
  return GRADES.flatMap((grade): [string, number][] => (counts.has(grade) ? [[grade, counts.get(grade) ?? 0]] : []));
}

type InspectionProps = BatchProps & { notes?: ReactNode; rules?: GradingRules; causes?: readonly Pick<Cause, "defect" | "words">[] };

/** A batch as far as it was inspected: the jar in hand, how many are left, and the way to put one down or finish. Null if it has no vessel. */
function useInspection(props: InspectionProps) {
  const batch = useBatch(props, 30_000);
  const { plan, state } = batch;
  const router = useRouter();
  const vessels = useMemo(() => namedLines(plan.products), [plan.products]);
  const [vesselId, setVesselId] = useState(vessels[0]?.key ?? "");
  const [spot, setSpot] = useState<{ place: Place | null; wall?: WallSpot | undefined }>({ place: null });
  const [hand, setHand] = useState<InHand>(EMPTY_HAND);
  const [message, setMessage] = useState("");
  /** Ended, while its record opens. */
  const [done, setDone] = useState(false);
  const vessel = vessels.find((vessel) => vessel.key === vesselId) ?? vessels[0];
  const jars = vessels.reduce((sum, item) => sum + filledOf(plan, state, item.key), 0);
  const stopped = vessels.reduce((sum, item) => sum + stoppedOf(plan, state, item.key), 0);
  const left = vessels.reduce((sum, item) => sum + progressOf(plan, state, item.key).left, 0);
  useKeys([{ key: "u", does: "delete the last entry", run: () => void batch.undo() }]);
  if (!vessel) return null;

  const at = progressOf(plan, state, vessel.key);
  const before = lastSeen(state, vessel.key);
  const newest = hand.flaws.at(-1) ?? null;
  const defect = newest ? toldOf(newest.defect) : undefined;
  const put = async (flaws: readonly SeenFlaw[], count: number) => {
    // The next jar is in the hand at once: what is tapped on it is not to be lost when this one has been written.
    setHand(EMPTY_HAND);
    setSpot({ place: null });
    const refusal = await batch.record({ kind: "jarsInspected", payload: { product: vessel.key, jars: count, flaws: flaws.map((flaw) => ({ ...flaw })) } });
    if (refusal) {
      setMessage(refusal.message);
      return refusal.message;
    }
    setMessage("");
    // The last of one kind is down: on to the next that has jars left.
    if (count >= at.left) {
      const next = vessels.find((item) => item.key !== vessel.key && progressOf(plan, state, item.key).left > 0);
      if (next) setVesselId(next.key);
    }
    return "";
  };
  /** Ends the inspection; with `allFine` those that are left are recorded as fine first. */
  const finish = async (allFine = false) => {
    if (allFine)
      for (const vessel of vessels) {
        const count = progressOf(plan, state, vessel.key).left;
        const refusal = count > 0 ? await batch.record({ kind: "jarsInspected", payload: { product: vessel.key, jars: count, flaws: [] } }) : null;
        if (refusal) return setMessage(refusal.message);
      }
    const refusal = await batch.record({ kind: "inspected", payload: { jars: allFine ? jars : jars - left } });
    if (refusal) return setMessage(refusal.message);
    setDone(true);
    router.push(`/records/${props.batch.id}`);
  };
  const mine = state.flaws.filter((flaw) => flaw.flaw.product === vessel.key);
  return {
    batch,
    rules: props.rules ?? DEFAULT_GRADES,
    vessels,
    vessel,
    setVesselId,
    spot,
    setSpot,
    hand,
    setHand,
    message,
    done,
    jars,
    stopped,
    left,
    at,
    before,
    defect,
    mine,
    put,
    finish,
  };
}
type InspectionState = NonNullable<ReturnType<typeof useInspection>>;

/** What there is to know of the flaw in hand: whether it is a safety matter, its likely causes, what to do now. */
function AboutFlaw({ defect, causes }: { defect: NonNullable<InspectionState["defect"]>; causes: readonly Pick<Cause, "defect" | "words">[] }) {
  const likely = causes.filter((cause) => cause.defect === defect.id);
  return (
    <>
      {defect.classes.includes("S") ? <Caution title="Safety">{defect.remedy}</Caution> : null}
      <Aside title={defect.name}>
        {defect.looks} ({defect.classes.map((defectClass) => CLASS[defectClass]).join(", ")})
      </Aside>
      {likely.length > 0 ? (
        <Aside title="Likely causes, most likely first">
          <ol className="list-decimal pl-5">
            {likely.map((cause) => (
              <li key={cause.words}>{cause.words}</li>
            ))}
          </ol>
        </Aside>
      ) : null}
      <Aside title="Now">{defect.remedy}</Aside>
    </>
  );
}

/** What is to be minded while jars are inspected. */
function Margin({ form, causes }: { form: InspectionState; causes: readonly Pick<Cause, "defect" | "words">[] }) {
  const units = useUnits();
  const { batch, stopped, jars, defect } = form;
  return (
    <>
      {!batch.pouredAt ? <Warn>Nothing is poured yet, so there is nothing to inspect.</Warn> : null}
      {batch.phase === "setting" && batch.times ? (
        <Warn>Still setting until {units.dayClock(batch.times.setAt)}. Tops can change until then: inspect again when it has set.</Warn>
      ) : null}
      {stopped > 0 ? (
        <Caution title="Not for sale">
          {stopped} {stopped === 1 ? "jar has" : "jars have"} a safety flaw: never sold, and not in stock. {jars - stopped} remain.
        </Caution>
      ) : null}
      {defect ? (
        <AboutFlaw defect={defect} causes={causes} />
      ) : (
        <Aside title="How to look">Hold each jar against the light. Count how many show the flaw: one jar in ten and ten in ten have different causes.</Aside>
      )}
      <Aside title="Grades">
        The worst flaw of a jar decides.{" "}
        <Link href="/inspect/grades" className="underline">
          Set the rules
        </Link>
      </Aside>
      <Aside title="Burn flaws">Mushrooming, soot, tunneling and scent throw are recorded in burn tests.</Aside>
      <Caution title="Cracked glass">Throw a cracked jar away: never sell it, never burn it.</Caution>
    </>
  );
}

/** The jar, with what it shows so far; tapped where the flaw is. */
function Jar({ batch: { plan, state }, vessels, vessel, setVesselId, at, hand, mine, spot, setSpot }: InspectionState) {
  return (
    <section aria-label="The jar">
      {vessels.length > 1 ? (
        <div className="mb-3">
          <label htmlFor="vessel" className="mb-1 block text-[15px] font-semibold">
            Vessel
          </label>
          <select id="vessel" className="entry !min-h-[56px]" value={vessel.key} onChange={(event) => setVesselId(event.target.value)}>
            {vessels.map((vessel) => (
              <option key={vessel.key} value={vessel.key}>
                {filledOf(plan, state, vessel.key)} × {vessel.name}
              </option>
            ))}
          </select>
        </div>
      ) : (
        <p className="mb-2 font-semibold">
          {at.filled} × {vessel.name}
        </p>
      )}
      <JarSection
        {...vessel}
        scale={Math.min(230 / (vessel.heightUm / 1_000 + 3), 184 / (Math.max(vessel.innerTopUm, vessel.innerBottomUm) / 1_000 + 6))}
        flaws={(hand.flaws.length > 0 ? hand.flaws : mine.map((item) => item.flaw)).map((item) => ({
          ...item,
          safety: defectOf(item.defect)?.classes.includes("S") ?? false,
        }))}
        place={spot.place}
        wall={spot.wall}
        onPlace={(place, wall) =>
          setSpot(place === spot.place && wall?.side === spot.wall?.side && wall?.height === spot.wall?.height ? { place: null } : { place, wall })
        }
      />
    </section>
  );
}

/** What was seen so far, and the way to finish. */
function Seen({ batch, rules, message, left, jars, mine, vessel, finish }: InspectionState) {
  const { state } = batch;
  const grades = gradesOf(state, rules);
  return (
    <>
      <h2 className="mt-5 border-b-[3px] border-ink pb-1">Seen so far</h2>
      {grades.length > 0 ? (
        <p className="py-1">
          <span className="sr-only">Grades: </span>
          {grades.map(([grade, count]) => `${count} ${grade}`).join(" · ")}
        </p>
      ) : null}
      {state.flaws.length + state.seen.length === 0 ? <p className="py-2 text-soft">No jars inspected yet.</p> : null}
      <SeenSoFar batch={batch} rules={rules} />
      <FormMessage className="mt-2">{message}</FormMessage>
      {left < jars ? (
        <button
          type="button"
          className={left === 0 ? "action-button mt-4" : "press mt-4 !min-h-[56px]"}
          data-next-step={left === 0 ? true : undefined}
          onClick={() => void finish()}
          disabled={!batch.pouredAt}
        >
          {left === 0 ? `Finish: ${jars} jars inspected` : `Finish (${left} jars not inspected)`}
        </button>
      ) : null}
      {batch.pouredAt && mine.length > 0 ? <Repairs batch={batch} product={vessel.key} /> : null}
    </>
  );
}

/** One jar in the hand, the phone in the other: tap where the flaw is, say which and how far; the next. */
export function Inspection(props: InspectionProps) {
  const units = useUnits();
  const form = useInspection(props);
  if (!form) return null;
  const { batch, rules, vessel, at, spot, setSpot, hand, setHand, before, put, jars, left, finish } = form;
  const { plan } = batch;
  return (
    <PageLayout
      gloved
      title={`Inspect batch ${props.batch.number}: ${batch.title}`}
      lead={batch.pouredAt ? `Poured ${units.dayClock(batch.pouredAt)}, ${jars} jars` : "Not poured yet."}
      side={<Margin form={form} causes={props.causes ?? []} />}
    >
      <div className="grid grid-cols-1 gap-x-6 gap-y-3 xl:grid-cols-[300px_minmax(0,1fr)]">
        <Jar {...form} />
        <div className="sheet">
          {form.done ? (
            <p role="status" className="text-[20px] font-bold">
              ✓ Inspected: {jars} {jars === 1 ? "jar" : "jars"}. Opening the record.
            </p>
          ) : at.left > 0 ? (
            <JarInHand
              key={`${vessel.key}${at.seen}`}
              number={at.seen + 1}
              filled={at.filled}
              left={batch.pouredAt ? at.left : 0}
              hand={hand}
              onHand={setHand}
              place={spot.place}
              wall={spot.wall}
              onPlace={(place, wall) => setSpot({ place, wall })}
              rules={rules}
              of={{ family: plan.pots[0]?.waxFamily ?? "", container: vessel.container }}
              before={before?.flaws ?? null}
              put={put}
              allFine={{ label: left === jars ? `All ${jars} jars are fine` : `The other ${left} are fine: finish`, run: () => finish(true) }}
            />
          ) : (
            <p className="text-[20px] font-bold">
              ✓ Inspected: {at.filled} × {vessel.name}.
            </p>
          )}
          <Seen {...form} />
        </div>
      </div>
      {props.notes}
    </PageLayout>
  );
}
