import { renameKeys, type Stored, upcastList } from "../log/stored";
import { type Profile, processOfProfile, upcastProcess } from "../process/upcast";

/** A plan as it was frozen before pots, products and steps were told apart. */
interface FirstPlan {
  formulaName: string;
  versionNumber: number;
  spec: { profile: Profile } & Record<string, unknown>;
  waxFamily: string;
  maxLoadPpm: number | null;
  vessels: ({ vesselId: string; part?: unknown } & Record<string, unknown>)[];
  sparePpm: number;
  spareMg?: number;
  resolutionUg: number;
  totalMg: number;
  components: Record<string, unknown>[];
  pitcherMg?: number;
}

/** Returns a frozen product or test candle with its container under the name that it has now: it was its body, and a mold was spelled the British way. */
export function upcastContainer(stored: Stored): Stored {
  const renamed = renameKeys({ body: "container", bodyId: "containerId" })(stored);
  return renamed.container === "mould" ? { ...renamed, container: "mold" } : renamed;
}

/** Brings a plan of an earlier format up to this one; what it did not say (wicks, the scale's name) stays unsaid. */
export function upcastPlan(raw: unknown): unknown {
  const old = raw as FirstPlan;
  if (!old || typeof old !== "object") return raw;
  if ("format" in old) {
    const { format, process, products } = raw as { format: unknown; process: unknown; products: unknown };
    if (format !== 2) return raw;
    return { ...(raw as object), format: 3, process: upcastProcess(process), products: upcastList(products, upcastContainer) };
  }
  if (!old.spec) return raw;
  const { profile, ...what } = old.spec;
  const seen = new Map<string, number>();
  return {
    format: 3,
    process: processOfProfile(profile),
    pots: [
      {
        formulaName: old.formulaName,
        versionNumber: old.versionNumber,
        recipe: what,
        waxFamily: old.waxFamily,
        maxLoadPpm: old.maxLoadPpm,
        totalMg: old.totalMg,
        components: old.components.map((part) => ({ ...part, scale: { id: null, name: "scale", resolutionUg: old.resolutionUg } })),
        sparePpm: old.sparePpm,
        ...(old.spareMg === undefined ? {} : { spareMg: old.spareMg }),
        ...(old.pitcherMg === undefined ? {} : { pitcherMg: old.pitcherMg }),
      },
    ],
    products: old.vessels.map(({ vesselId, ...vessel }) => {
      const n = (seen.get(vesselId) ?? 0) + 1;
      seen.set(vesselId, n);
      return { ...vessel, key: n === 1 ? vesselId : `${vesselId}:${n}`, container: "vessel", containerId: vesselId, wicks: null };
    }),
  };
}
