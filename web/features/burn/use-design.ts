"use client";

import { firstLadder, good, isLadder, PROTOCOLS, type Protocol, parseLadder, readSessions, type Varied, writeLadder, writeSessions } from "@hearth/core";
import { useMemo, useRef, useState } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { named, useFields, words } from "@/forms/fields";
import { countRule } from "@/forms/rules";
import { useWorkshop } from "@/log/workshop";
import { beginTrial } from "@/server/burn/commands";
import type { Design } from "@/server/burn/trial-design";
import { useRouter } from "@/ui/address";
import { askedBy, bestWick, designWarnings, draftsFor, ladderOf, nameFor } from "./design-model";

type From = "make" | "rack";

/** Returns what a ladder of loads begins from. */
const ladderFacts = ({ formula }: Design) => ({
  loadPercent: (formula?.loadPpm ?? 0) / 10_000,
  maxLoadPercent: formula?.maxLoadPpm == null ? null : formula.maxLoadPpm / 10_000,
  isEssential: formula?.isEssential ?? false,
});

/** A trial as it is designed: what is varied, which variants are picked, by which protocol; and what is to be said of it. */
export function useDesign(design: Design) {
  const asks = askedBy(design);
  const container = design.containers.find((container) => container.id === design.containerId) ?? design.containers[0];
  const full = asks?.what === "test_full";
  /** The jars of the batch that is to be tested. */
  const tested = design.rack.filter((item) => item.batchId === design.batchId);
  // With one wick on the shelf there is nothing to compare it with.
  const first = tested.length > 0 || design.wicks.length < 2 ? null : "wick size";
  const [varies, setVaries] = useState<Varied | null>(full ? null : (asks?.varies ?? (design.before ? design.before.plan.varies : first)));
  const [from, setFrom] = useState<From>(tested.length > 0 ? "rack" : "make");
  const [half, setHalf] = useState(false);
  const [wickId, setWickId] = useState<string | null>(null);
  const best = useMemo(() => (container ? bestWick(design, container) : null), [design, container]);
  const wickOfAll = wickId ?? best?.id ?? "";
  const [picked, setPicked] = useState<Record<string, boolean>>({});
  const [racked, setRacked] = useState<Record<string, number>>(Object.fromEntries(tested.slice(0, 1).map((item) => [`${item.batchId} ${item.product}`, 1])));
  const [how, setHow] = useState<string>(design.before ? "before" : (PROTOCOLS[0]?.id ?? ""));
  const ready = (id: string): Protocol => {
    if (id === "before" && design.before) return design.before.protocol;
    const { id: _id, says: _says, ...protocol } = (PROTOCOLS.find((item) => item.id === id) ?? PROTOCOLS[0]) as (typeof PROTOCOLS)[number];
    return protocol;
  };
  const suggested = nameFor(design, container, varies);
  const lastName = useRef(suggested);
  const ladder = isLadder(varies) ? varies : null;
  const [ladderId, setLadderId] = useState<string | null>(null);
  const [oneMelt, setOneMelt] = useState(false);
  const ladderFirst = ladder ? writeLadder(firstLadder(ladder, ladderFacts(design))) : "";
  const rules = useMemo(
    () => ({
      ladder: { initial: ladderFirst, parse: (text: string) => (ladder ? parseLadder(text, ladder) : good([] as number[])) },
      ownMarks: words("", 320),
      name: named("the trial", suggested),
      replicates: countRule({ least: 1, most: 10, name: "test candles of each" }, "2"),
      sessions: { initial: writeSessions(ready(how).sessions), parse: readSessions },
      rest: countRule({ least: 0, most: 336, name: "hours of rest" }, String(ready(how).restHours)),
      least: countRule({ least: 1, most: 20, name: "sessions" }, String(ready(how).least)),
    }),
    // The rules follow what is chosen; what was typed stays.
    [suggested, how, ladder, ladderFirst],
  );
  const fields = useFields(rules);
  const ladderNames = ladder ? ladderOf(design, ladder) : [];
  const ladderMaterial = ladderNames.find((item) => item.id === ladderId) ?? ladderNames[0] ?? null;
  const steps = fields.values.ladder;
  const drafts = useMemo(
    () =>
      container
        ? draftsFor(design, container, varies, wickId ? { id: wickId, count: best?.count ?? container.wicks ?? 1 } : null, {
            steps: steps ?? [],
            of: ladderMaterial,
          })
        : [],
    [design, container, varies, wickId, best?.count, steps, ladderMaterial],
  );
  const isPicked = (key: string, chosen: boolean) => picked[key] ?? chosen;
  const shown = drafts.map((draft) => ({ ...draft, chosen: isPicked(draft.key, draft.chosen) }));
  const chosen = shown.filter((item) => item.chosen);
  const proposed = shown.filter((item) => item.why !== "" || item.chosen);
  const replicates = fields.values.replicates ?? 2;
  const warnings = from === "make" ? designWarnings(design, varies, shown, replicates, half) : [];
  const vary = (to: Varied | null) => {
    setVaries(to);
    setPicked({});
    if (isLadder(to)) fields.set("ladder", writeLadder(firstLadder(to, ladderFacts(design))));
    // A name that was not typed over follows.
    if (fields.text("name") === lastName.current) {
      lastName.current = nameFor(design, container, to);
      fields.set("name", lastName.current);
    }
  };
  const chooseProtocol = (id: string) => {
    setHow(id);
    const to = ready(id);
    fields.fill({ sessions: writeSessions(to.sessions), rest: String(to.restHours), least: String(to.least) });
  };
  return {
    ...{ design, asks, container, varies, vary, from, setFrom, half, setHalf, wickOfAll, setWickId, best, fields, how, chooseProtocol, ready },
    ...{ ladder, ladderNames, ladderMaterial, setLadderId, oneMelt, setOneMelt },
    ...{ shown, chosen, proposed, replicates, warnings, racked },
    /** Picks a variant, or leaves it out. */
    pick: (key: string, on: boolean) => setPicked((old) => ({ ...old, [key]: on })),
    /** Takes so many off the rack. */
    take: (key: string, n: number) => setRacked((old) => ({ ...old, [key]: n })),
  };
}
export type DesignState = ReturnType<typeof useDesign>;

/** Returns what is burned, as it is sent: new test candles, or jars off the rack. */
function chosenVariants({ design, from, chosen, racked, half }: DesignState, testCandles: number) {
  if (from === "make")
    return chosen.map((item) => ({
      from: "make" as const,
      formulaVersionId: design.formula?.versionId,
      container: item.container.container,
      containerId: item.container.id,
      wick: item.wick ? { id: item.wick.id, count: item.wick.count } : null,
      testCandles,
      half,
      change: { ...item.change },
    }));
  return design.rack.flatMap((item) => {
    const n = racked[`${item.batchId} ${item.product}`] ?? 0;
    return n > 0 ? [{ from: "rack" as const, batchId: item.batchId, product: item.product, testCandles: n }] : [];
  });
}

/** Starts the designed trial, then opens its first pot, or the trial itself where nothing has to be poured. */
export function useBeginning(state: DesignState) {
  const router = useRouter();
  const workshop = useWorkshop();
  const [trialId] = useState(() => v7());
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState("");
  const begin = async () => {
    const { design, asks, varies, fields, how, ready } = state;
    const v = fields.check();
    if (!v) return;
    const variants = chosenVariants(state, v.replicates);
    if (variants.length === 0) return setMessage("Choose at least one to burn.");
    if (variants.some((variant) => variant.from === "make" && "wick" in variant && !variant.wick))
      return setMessage("Choose their wick: a burn test needs it.");
    setBusy(true);
    const base = ready(how);
    const same = writeSessions(base.sessions) === writeSessions(v.sessions) && base.restHours === v.rest && base.least === v.least;
    const outcome = await callAction(
      beginTrial(workshop, {
        trialId,
        name: v.name,
        varies,
        protocol: { name: same ? base.name : `${base.name}, changed`, sessions: v.sessions, restHours: v.rest, least: v.least, toEnd: base.toEnd },
        productId: design.product?.id ?? null,
        after:
          design.before && asks
            ? { id: design.before.id, name: `Trial ${design.before.number}, ${design.before.name}`.slice(0, 160), why: asks.why.slice(0, 600) }
            : null,
        variants,
        oneMelt: state.ladder !== null && state.from === "make" && state.oneMelt,
        ownMarks: v.ownMarks
          .split(",")
          .map((mark) => mark.trim())
          .filter(Boolean),
      }),
    );
    setBusy(false);
    if (!outcome.ok) {
      fields.refuse(outcome.fields);
      return setMessage(outcome.message);
    }
    router.push(outcome.value.batches.length > 0 ? `/bench/${outcome.value.batches[0]}` : `/burn/${outcome.value.id}`);
  };
  return { begin, busy, message };
}
