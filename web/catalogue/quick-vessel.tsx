"use client";

import { estimateVessel, parseVesselMeasure, type VesselMeasure } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { callAction, messagesOfValues } from "@/forms/call-action";
import { Field, type FieldRule, named, useFields } from "@/forms/fields";
import { useWorkshop } from "@/log/workshop";
import { saveOnShelf } from "@/server/inventory/shelf-save";
import { FormMessage } from "@/ui/form-message";
import { useUnits } from "@/ui/units";

interface QuickVesselProps {
  /** What was typed while it was looked for. */
  name: string;
  onMade: (id: string) => void;
  onDone: () => void;
  /** Shows the whole form instead. */
  onWhole: () => void;
}

/** A vessel by its name and what it holds, so that it can be planned with at once: its size and net weight are measured later. */
export function QuickVessel({ name, onMade, onDone, onWhole }: QuickVesselProps) {
  const units = useUnits();
  const workshop = useWorkshop();
  const [freshId] = useState(() => v7());
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const rules = useMemo(
    () => ({
      name: named("the vessel", name),
      holds: {
        initial: "",
        parse: (text: string) => parseVesselMeasure(text, units.mass),
      } satisfies FieldRule<VesselMeasure>,
    }),
    [name, units],
  );
  const fields = useFields(rules);
  const measure = fields.values.holds;
  const vessel = measure && estimateVessel(measure);
  const fillMg = vessel && units.asShown(vessel.fillMg);
  const save = () => {
    const all = fields.check();
    if (!all || !vessel) return;
    start(async () => {
      const outcome = await callAction(
        saveOnShelf(workshop, {
          kind: "vessel",
          id: null,
          freshId,
          expectedVersion: null,
          values: {
            name: all.name,
            material: "not known",
            statedFillMg: fillMg,
            workingFillMg: fillMg,
            innerTopUm: vessel.diameterUm,
            innerBottomUm: vessel.diameterUm,
            heightUm: vessel.heightUm,
            headspaceUm: vessel.headspaceUm,
            waterMg: vessel.waterMg,
            nominalUl: measure?.is === "nominal" ? Math.round(measure.ml * 1_000) : null,
            sizeEstimated: true,
          },
        }),
      );
      if (outcome.ok) return onMade(outcome.value.id);
      setMessage(outcome.message);
      fields.refuse(messagesOfValues(outcome.fields));
    });
  };
  return (
    <form
      ref={fields.form}
      onSubmit={(event) => {
        event.preventDefault();
        // Beside another form, that one is not sent with it.
        event.stopPropagation();
        save();
      }}
      onKeyDown={(event) => event.key === "Escape" && onDone()}
    >
      <Field label="Name" {...fields.bind("name")} autoFocus={name === ""} />
      <Field
        label="Weight of water to the fill line, or the volume it is sold as"
        {...fields.bind("holds")}
        autoFocus={name !== ""}
        large
        hint={units.say("Like {200 g, or 20 cl|7 oz, or 8 fl oz}. A weight is that of water; a volume is filled to about four fifths.")}
      />
      {fillMg === undefined || !measure ? null : (
        <p role="status" className="mt-1">
          <span className="figure text-[34px]">{units.g(fillMg)}</span> of wax and oil{" "}
          <span className="text-soft">
            {measure.is === "water" ? "by the weight of its water" : `by its volume of ${units.volume(measure.ml)}: a rule of thumb, until you weigh it`}
          </span>
        </p>
      )}
      <p className="mt-2 text-[15px] text-soft">
        Its size is estimated for the drawing, and no wick is suggested until you measure it. Check that its material is safe to burn in.
      </p>
      <FormMessage className="mt-2">{message}</FormMessage>
      <div className="mt-3 flex flex-wrap gap-3">
        <button type="submit" className="action-button" disabled={busy}>
          {busy ? "Saving" : "Add and use it"}
        </button>
        <button type="button" className="press" onClick={onWhole}>
          All details
        </button>
        <button type="button" className="press" onClick={onDone}>
          Cancel
        </button>
      </div>
    </form>
  );
}
