"use client";

import { type ColorRecipe, colorsFor, type DyePart, type MassUnit, suits, writeDose } from "@hearth/core";
import { useState, useTransition } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import type { ColorRow } from "@/server/formulas/colors";
import { saveColor, takeColorAway } from "@/server/formulas/commands";
import { useRouter } from "@/ui/address";
import { toast } from "@/ui/toast";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";

const TRIED = { both: "tried in this wax with this scent", wax: "tried in this wax", scent: "tried with this scent", any: "for any wax and scent" };

/** "6 drops per lb of slate blue, 1 drop per lb of soot". */
export const writeColor = (recipe: Pick<ColorRecipe, "dyes">, nameOf: (id: string) => string, unit: MassUnit): string =>
  recipe.dyes.map((dye) => `${writeDose(dye, unit)} ${nameOf(dye.id)}`).join(", ");

interface ColorsProps {
  colors: ColorRow[];
  /** The first wax and scent of the formula; empty if there is none. */
  wax: string;
  scent: string;
  /** The dyes that stand in the formula now. */
  dyes: DyePart[];
  nameOf: (id: string) => string;
  onTake: (dyes: DyePart[]) => void;
}

/** The colors that this workshop knows for the wax and scent chosen, and the way to keep the one that stands here. */
export function Colors({ colors, wax, scent, dyes, nameOf, onTake }: ColorsProps) {
  const workshop = useWorkshop();
  const units = useUnits();
  const router = useRouter();
  const [name, setName] = useState("");
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const known = colorsFor(colors, wax, scent);
  const others = colors.length - known.length;
  const keep = () =>
    start(async () => {
      const out = await callAction(saveColor(workshop, { id: v7(), name, recipe: { waxId: wax || null, fragranceId: scent || null, dyes } }));
      if (!out.ok) return setMessage(out.message);
      setMessage("");
      setName("");
      router.refresh();
    });
  const turn = async (color: ColorRow, isDeleted: boolean) => {
    const out = await callAction(takeColorAway(workshop, { id: color.id, gone: isDeleted }));
    if (!out.ok) return toast(out.message);
    router.refresh();
    if (isDeleted) toast(`Color ${color.name} is deleted.`, { action: { label: "Undo", onClick: () => void turn(color, false) } });
  };
  if (colors.length === 0 && dyes.length === 0) return null;
  return (
    <section aria-label="Colors" className="border-t border-line pt-2">
      {known.length > 0 ? (
        <ul>
          {known.map((color) => (
            <li key={color.id} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1">
              <span className="min-w-0 flex-1 text-[15px]">
                <strong>{color.name}</strong>: {writeColor(color.recipe, nameOf, units.mass)}
                <span className="text-soft">, {TRIED[suits(color.recipe, wax, scent) ?? "any"]}</span>
              </span>
              <button type="button" className={press({ size: "small" })} onClick={() => onTake(color.recipe.dyes)} aria-label={`Use the color ${color.name}`}>
                Use color
              </button>
              <button type="button" className={press({ size: "small" })} onClick={() => void turn(color, true)} aria-label={`Delete the color ${color.name}`}>
                ✕
              </button>
            </li>
          ))}
        </ul>
      ) : null}
      {others > 0 ? <p className="text-[14px] text-soft">{others === 1 ? "One color" : `${others} colors`} for other waxes or scents.</p> : null}
      {dyes.length > 0 ? (
        <div className="mt-1 flex flex-wrap items-end gap-2">
          <label className="min-w-[160px] flex-1 text-[15px] font-semibold">
            Save this color as
            <input className="entry mt-1 font-normal" maxLength={120} value={name} placeholder="Slate gray" onChange={(event) => setName(event.target.value)} />
          </label>
          <button type="button" className="press" disabled={busy} onClick={keep}>
            {busy ? "Keeping" : "Save color"}
          </button>
        </div>
      ) : null}
      {message ? (
        <p role="alert" className="mt-1 font-semibold text-hot">
          ▲ {message}
        </p>
      ) : null}
    </section>
  );
}
