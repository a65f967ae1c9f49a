"use client";

import { type Figure, MG_PER, ML_PER, type WorkingStep, workingOf } from "@hearth/core";
import { type ReactNode, useRef, useState } from "react";
import { PopoverBox } from "./popover";
import { type Formats, useUnits } from "./units";

const SIGNS: Record<string, string> = { multiply: "×", divide: "÷", add: "+", subtract: "−", round: "→", "round up": "→" };

function writeFigure(figure: Figure, units: Formats): string {
  if (figure.unit === "g") {
    const value = units.mass === "g" ? figure.value : (figure.value * 1_000) / MG_PER.oz;
    return `${units.n(value, units.mass === "g" ? 2 : 3)} ${units.mass}`;
  }
  if (figure.unit === "%") return `${units.n(figure.value, 3)} %`;
  if (figure.unit === "×") return units.n(figure.value, 4);
  if (figure.unit === "ml") return units.volume(figure.value);
  if (figure.unit === "mm") return units.len(figure.value * 1_000);
  if (figure.unit === "g/ml") {
    // Ounces to the fluid ounce, so that the sum below can be followed.
    return units.mass === "g" ? units.density(figure.value * 1e6) : `${units.n((figure.value * ML_PER["fl oz"] * MG_PER.g) / MG_PER.oz, 4)} oz/fl oz`;
  }
  return units.n(figure.value, 2);
}

/** Returns a sum that is written out, with its weights in the unit of the workshop. */
const inUnit = (expression: string, units: Formats): string =>
  units.mass === "g"
    ? expression
    : expression
        .replace(/(\d[\d.]*) g\b/g, (_all, grams: string) => writeFigure({ name: "", value: Number(grams), unit: "g" }, units))
        // From cubic millimeters to milliliters; a cubic inch is 16.387 ml, which is 0.5541 fl oz.
        .replace(/÷ 1000$/, "× 0.5541");

function StepLine({ step, units }: { step: WorkingStep; units: Formats }) {
  const gives = writeFigure(step.gives, units);
  // A figure that was chosen has its reason in place of a sum.
  const reason = step.by === "formula" && step.expression && !/[×÷+−²]/.test(step.expression) ? step.expression : null;
  const rounding = step.by === "round" || step.by === "round up" || reason !== null;
  const from = rounding ? step.from.slice(0, 1) : step.from;
  return (
    <li className="border-b border-line py-1 last:border-0">
      <div className="text-[13px] text-soft">
        {step.gives.name}
        {reason ? `, ${reason}` : ""}
        {rounding && !reason && step.from[1] ? `, ${step.by === "round" ? "to the nearest" : "up to the next"} ${writeFigure(step.from[1], units)}` : ""}
      </div>
      <div className="figure text-[18px]">
        {(reason || !step.expression ? null : inUnit(step.expression, units)) ?? from.map((figure) => writeFigure(figure, units)).join(` ${SIGNS[step.by]} `)}
        {rounding ? " → " : " = "}
        <strong>{gives}</strong>
      </div>
    </li>
  );
}

/** A computed figure that opens to its working. */
export function Worked({ steps, name, children, label }: { steps: WorkingStep[]; name: string; children: ReactNode; label: string }) {
  const units = useUnits();
  const [open, setOpen] = useState(false);
  const at = useRef<HTMLButtonElement>(null);
  return (
    <>
      <button
        ref={at}
        type="button"
        aria-haspopup="dialog"
        aria-expanded={open}
        className="text-left underline decoration-soft decoration-dotted decoration-2 underline-offset-4 hover:decoration-ink"
        onClick={() => setOpen(!open)}
      >
        {children}
        <span className="sr-only">, {label}: show the calculation</span>
      </button>
      {open ? (
        <PopoverBox
          at={at}
          onClose={() => setOpen(false)}
          aria-label={`How ${label} is calculated`}
          className="sheet z-30 max-h-[min(70vh,var(--radix-popover-content-available-height))] w-[min(430px,92vw)] overflow-auto shadow-[0_6px_30px_rgb(0_0_0/.35)]"
        >
          <h3>How {label} is calculated</h3>
          <ol className="mt-1">
            {workingOf(steps, name).map((step) => (
              <StepLine key={step.gives.name} step={step} units={units} />
            ))}
          </ol>
        </PopoverBox>
      ) : null}
    </>
  );
}
