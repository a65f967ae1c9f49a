import { type BatchEvent, type BatchState, defectOf, type Gate, type GateName, standing, writeDuration, writeStanding } from "@hearth/core";
import type { Writers } from "@/ui/units";

export interface Told {
  what: string;
  figure: string;
  /** How a reading stands against its gate; empty where that does not apply. */
  standing: string;
  tone: "ink" | "inside" | "hot" | "cool" | "safety";
}

/** What one entry says, in the reader's units. */
export function tell(event: BatchEvent, state: BatchState, units: Writers, instrumentName: (id: string | null) => string): Told {
  const told = (what: string, figure = ""): Told => ({ what, figure, standing: "", tone: "ink" });
  switch (event.kind) {
    case "started":
      return told(
        `started from ${event.payload.plan.formulaName}, version ${event.payload.plan.versionNumber}`,
        units.g(event.payload.plan.totalMg, event.payload.plan.resolutionUg),
      );
    case "weighed":
      return told(`weighed ${state.plan.components.find((part) => part.id === event.payload.componentId)?.name ?? "something"}`, units.g(event.payload.mg));
    case "counted": {
      const part = state.plan.components.find((one) => one.id === event.payload.componentId);
      return told(`counted in ${part?.name ?? "something"}`, `${event.payload.n} ${part?.count?.of ?? ""}`);
    }
    case "read": {
      const celsius = event.payload.shown + event.payload.correction;
      const by = instrumentName(event.instrumentId);
      const named = event.payload.gate === "watch" ? "reading" : `${event.payload.gate} reading`;
      const what = `${named}${by ? `, ${by}` : ""}${event.payload.correction === 0 ? "" : ` (shown ${units.t(event.payload.shown)}, corrected)`}`;
      if (event.payload.gate === "watch") return { ...told(what, units.t(celsius)) };
      const gate: Gate = state.plan.spec.profile[event.payload.gate as GateName];
      const at = standing(celsius, gate).is;
      return {
        what,
        figure: units.t(celsius),
        standing: writeStanding(celsius, event.payload.gate as GateName, gate, units.temperature),
        tone: at === "inside" ? "inside" : at === "above" ? "hot" : "cool",
      };
    }
    case "stirred":
      return told("stirred", writeDuration(event.payload.seconds));
    case "poured":
      return told(`poured${event.payload.warmedJars === null ? "" : event.payload.warmedJars ? ", jars warmed" : ", jars not warmed"}`);
    case "flaw": {
      const { defect, place, severity, jars, vesselId } = event.payload;
      const known = defectOf(defect);
      const vessel = state.plan.vessels.find((one) => one.vesselId === vesselId);
      return {
        ...told(`${severity} ${known?.name ?? defect} at the ${place}, ${vessel?.name ?? "vessel"}`, `${jars} of ${vessel?.count ?? "?"}`),
        tone: known?.classes.includes("S") ? "safety" : "ink",
      };
    }
    case "looked":
      return told("looked over", `${event.payload.jars} jars`);
    case "note":
      return told(`“${event.payload.text}”`);
    case "closed":
      return told(event.payload.missing.length ? `closed, without: ${event.payload.missing.join(", ")}` : "closed, complete");
    case "withdrawn":
      return told(`taken back${event.payload.why ? `: ${event.payload.why}` : ""}`);
  }
}

export const SIGN: Record<Told["tone"], string> = { ink: "", inside: "✓ ", hot: "▲ ", cool: "▼ ", safety: "⚠ " };
export const TONE: Record<Told["tone"], string> = { ink: "text-ink", inside: "text-inside", hot: "text-hot", cool: "text-cool", safety: "text-safety" };
