import {
  type AdviceWhat,
  type Ladder,
  type NextTrial,
  nextTrial,
  type Proposal,
  proposeWicks,
  seriesOf,
  type Varied,
  variantVerdict,
  widthOf,
} from "@hearth/core";
import type { Design, TrialContainer } from "@/server/burn/trial-design";

/** One variant of a trial that is being designed. */
export interface Draft {
  /** Tells it from the others while it is designed. */
  key: string;
  says: string;
  why: string;
  chosen: boolean;
  wick: { id: string; count: number } | null;
  container: TrialContainer;
  change: { loadPpm?: number; waxId?: string; fragranceId?: string; ladder?: { kind: "blend" | "additive" | "dye"; id: string; amount: number } };
}

/** Returns what the trial before asked for, of the variant that the next one follows. */
export function askedBy(design: Design): { what: AdviceWhat; varies: Varied | null; why: string } | null {
  const { before } = design;
  if (!before) return null;
  const next: NextTrial | null = nextTrial(before.plan, before.state);
  if (next && (before.variant === null || next.variant === before.variant)) return next;
  const advice = before.variant ? variantVerdict(before.plan, before.state, before.variant).advice : null;
  return advice ? { what: advice.what, varies: null, why: advice.why } : null;
}

/** Returns what it is about to be burned with now: the wick of the variant before, or the product's. */
export function wickNow(design: Design): { wickId: string; count: number } | null {
  const { before, product } = design;
  const item = before?.plan.testCandles.find((each) => each.variant === before.variant);
  if (item?.wick) return { wickId: item.wick.wickId, count: item.wick.count };
  return product?.wickId ? { wickId: product.wickId, count: product.wicks } : null;
}

const percent = (ppm: number) => `${Math.round(ppm / 100) / 100} %`;

/** Returns the wicks worth trying in a container, with why. */
export const proposalsFor = (design: Design, container: TrialContainer, varies: Varied): Proposal[] => {
  const asks = askedBy(design)?.what;
  return proposeWicks(
    design.wicks,
    {
      widthUm: Math.round(widthOf(container) * 1_000),
      bottomUm: container.innerBottomUm,
      family: design.formula?.family ?? "",
      loadPpm: design.formula?.loadPpm ?? 0,
      pillar: container.container === "mold",
      vesselWicks: container.wicks ?? null,
      now: wickNow(design),
      varies: varies === "wick size" ? "wick size" : "wick kind",
      asks: asks === "wick_up" || asks === "wick_down" || asks === "change_kind" ? asks : undefined,
    },
    design.passed,
  );
};

/** The wick that all burn with where something else is varied: what it has now, else the one that is proposed first; null if nothing suits. */
export function bestWick(design: Design, container: TrialContainer): { id: string; count: number } | null {
  const now = wickNow(design);
  if (now) return { id: now.wickId, count: now.count };
  const [first] = proposalsFor(design, container, "wick size");
  return first ? { id: first.wick.id, count: first.count } : null;
}

/** Returns whether the variants of a trial differ by their wicks: else one wick is asked for. */
export const variesWick = (varies: Varied | null): boolean => varies === "wick kind" || varies === "wick size";

/** The steps of a ladder as they were typed, and of what: a second wax, an additive or a dye. */
export interface LadderTyped {
  steps: readonly number[];
  of: { id: string; name: string } | null;
}

/** Returns what a ladder can be of: the waxes beside the formula's own, the additives, or the dyes. */
export const ladderOf = (design: Design, ladder: Ladder): readonly { id: string; name: string }[] =>
  ladder === "blend"
    ? design.waxes.filter((wax) => wax.id !== design.formula?.waxId)
    : ladder === "additive"
      ? design.additives
      : ladder === "dye"
        ? design.dyes
        : [];

/** The variants that are offered for what is varied, those that are proposed chosen already. */
export function draftsFor(
  design: Design,
  container: TrialContainer,
  varies: Varied | null,
  chosen: { id: string; count: number } | null = null,
  ladder: LadderTyped = { steps: [], of: null },
): Draft[] {
  const { formula } = design;
  if (!formula) return [];
  const proposals = proposalsFor(design, container, varies ?? "wick size");
  const now = wickNow(design);
  const best = chosen ?? bestWick(design, container);
  const nameOf = (wick: { id: string; count: number } | null) => {
    const name = design.wicks.find((item) => item.id === wick?.id)?.name ?? "no wick";
    return wick && wick.count > 1 ? `${wick.count} × ${name}` : name;
  };
  const draft = (key: string, says: string, why: string, chosen: boolean, more: Partial<Draft> = {}): Draft => ({
    key,
    says,
    why,
    chosen,
    wick: best,
    container,
    change: {},
    ...more,
  });
  switch (varies) {
    case "load":
      return ladder.steps.map((step) => {
        const ppm = Math.round(step * 10_000);
        const over = formula.maxLoadPpm !== null && ppm > formula.maxLoadPpm;
        const why = over
          ? `above the maximum of ${percent(formula.maxLoadPpm ?? 0)} that its wax takes`
          : ppm === formula.loadPpm
            ? "what it has now"
            : ppm < formula.loadPpm
              ? "soot and mushrooming need less"
              : "a stronger throw";
        return draft(`load ${ppm}`, `load ${percent(ppm)}`, why, !over, { change: { loadPpm: ppm } });
      });
    case "blend":
    case "additive":
    case "dye":
      return ladder.of === null
        ? []
        : ladder.steps.map((amount) => {
            const { id, name } = ladder.of as { id: string; name: string };
            const says = varies === "dye" ? `${amount} ${amount === 1 ? "drop" : "drops"} of ${name} per lb` : `${amount} % ${name}`;
            return draft(`${varies} ${id} ${amount}`, says, amount === 0 ? "without it, to compare with" : "", true, {
              change: { ladder: { kind: varies, id, amount } },
            });
          });
    case "wax":
      return design.waxes.map((wax) =>
        draft(wax.id, wax.name, wax.id === formula.waxId ? "what it has now" : `family ${wax.family}`, wax.id === formula.waxId, {
          change: wax.id === formula.waxId ? {} : { waxId: wax.id },
        }),
      );
    case "scent":
      return design.fragrances.map((fragrance) =>
        draft(
          fragrance.id,
          fragrance.name,
          fragrance.id === formula.fragranceId ? "what it has now" : "a new scent needs a new wick test",
          fragrance.id === formula.fragranceId,
          {
            change: fragrance.id === formula.fragranceId ? {} : { fragranceId: fragrance.id },
          },
        ),
      );
    case "vessel":
      return design.containers.map((trialContainer) =>
        draft(trialContainer.id, trialContainer.name, trialContainer.id === container.id ? "what it has now" : "", trialContainer.id === container.id, {
          container: trialContainer,
        }),
      );
    case null:
      return [draft("now", nameOf(best), "only this one", true)];
    default: {
      const proposed = proposals.map((proposal) =>
        draft(
          proposal.wick.id,
          proposal.count > 1 ? `${proposal.count} × ${proposal.wick.name}` : proposal.wick.name,
          proposal.why.join("; "),
          proposal.chosen,
          {
            wick: { id: proposal.wick.id, count: proposal.count },
          },
        ),
      );
      const rest = design.wicks
        .filter((wick) => !proposals.some((each) => each.wick.id === wick.id))
        .map((wick) => draft(wick.id, wick.name, "", false, { wick: { id: wick.id, count: now?.count ?? proposals[0]?.count ?? 1 } }));
      return [...proposed, ...rest];
    }
  }
}

const seriesIn = (design: Design, wick: { id: string } | null): string | null => {
  const found = design.wicks.find((each) => each.id === wick?.id);
  return found ? seriesOf(found) : null;
};

/** Returns a name for the trial, as a maker would write it on the box. */
export function nameFor(design: Design, container: TrialContainer | undefined, varies: Varied | null): string {
  const of = design.product?.name ?? `${design.formula?.name ?? "formula"} in ${container?.name ?? "a vessel"}`;
  const asks = askedBy(design);
  if (asks?.what === "test_full") return `Full jars of ${of}`;
  return varies === null ? `Burn test of ${of}` : `Which ${varies} for ${of}`;
}

/** Returns what the design would warn of before it is begun. */
export function designWarnings(design: Design, varies: Varied | null, drafts: readonly Draft[], replicates: number, half: boolean): string[] {
  const chosen = drafts.filter((draft) => draft.chosen);
  return [
    ...(varies === "load" && (design.formula?.dyed || design.formula?.added)
      ? ["No dye, mica, additives or embeds while testing the load: this formula has some."]
      : []),
    ...(replicates < 2 && chosen.length > 1 ? ["Burn two of each: with one alone, the result may be chance."] : []),
    ...(varies !== null && chosen.length < 2 ? ["Choose at least two to compare."] : []),
    ...(half ? ["A half-fill result never counts as a full pass: full jars follow."] : []),
    ...(varies === "wick size" && new Set(chosen.map((draft) => seriesIn(design, draft.wick))).size > 1
      ? ["These are of several kinds or series, whose sizes cannot be compared. Vary the kind or the size, not both."]
      : []),
    ...(varies === "wax" || varies === "scent" ? ["The wicks suit what it has now, and the new one may need another. Keep that in mind."] : []),
  ];
}
