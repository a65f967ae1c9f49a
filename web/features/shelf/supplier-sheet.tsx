"use client";

import { useState, useTransition } from "react";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import { takeSupplierSheet } from "@/server/inventory/commands";
import type { KeptSheet } from "@/server/inventory/safety-data-sheets";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { lazy } from "@/ui/lazy";
import { toast } from "@/ui/toast";
import { useUnits } from "@/ui/units";
import { Ingredients } from "./ingredients";
import type { SheetedKind } from "./stocked";

const SupplierSheetForm = lazy(async () => (await import("./supplier-sheet-form")).SupplierSheetForm, { typed: true });

/** What the supplier's safety data sheet says of what is in a material: the newest counts for labels, the earlier ones stay. */
export function SupplierSheetPanel({ kind, materialId, sheets }: { kind: SheetedKind; materialId: string; sheets: KeptSheet[] }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  // Closed again, the form keeps what was typed.
  const [form, setForm] = useState<"not opened" | "open" | "closed">("not opened");
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const [newest, ...earlier] = sheets;
  const take = (id: string, isDeleted: boolean) =>
    start(async () => {
      const outcome = await callAction(takeSupplierSheet(workshop, { id, gone: isDeleted }));
      if (!outcome.ok) return setMessage(outcome.message);
      if (isDeleted) toast("The safety data sheet was deleted.", { action: { label: "Undo", onClick: () => take(id, false) } });
      router.refresh();
    });
  return (
    <section className="mt-7" aria-label="Supplier's sheet">
      <h2 className="border-b-[3px] border-ink pb-1">Safety data sheet</h2>
      {newest ? (
        <>
          <p className="mt-2">
            Of {units.onDate(newest.sheet.on)}
            {newest.sheet.revision ? `, version ${newest.sheet.revision}` : ""}, entered {units.day(newest.at)}.{" "}
            <button type="button" className="underline" disabled={busy} onClick={() => take(newest.id, true)}>
              Delete sheet
            </button>
          </p>
          <Ingredients rows={newest.sheet.ingredients} />
          {earlier.length > 0 ? (
            <p className="mt-1 text-[15px] text-soft">
              Earlier:{" "}
              {earlier.map((keptSheet) => `${units.onDate(keptSheet.sheet.on)}${keptSheet.sheet.revision ? ` (${keptSheet.sheet.revision})` : ""}`).join(", ")}.
            </p>
          ) : null}
        </>
      ) : (
        <p className="mt-2 text-soft">
          None yet. Labels that rest on this {kind} say so. Enter its ingredients with percent and classes from sections 3 and 11 of the sheet.
        </p>
      )}
      {form === "not opened" ? null : (
        <div hidden={form === "closed"}>
          <SupplierSheetForm kind={kind} materialId={materialId} onClose={() => setForm("closed")} />
        </div>
      )}
      {form === "open" ? null : (
        <button type="button" className="press mt-3" onPointerEnter={SupplierSheetForm.ahead} onClick={() => setForm("open")}>
          {newest ? "Add a newer safety data sheet" : "Add its safety data sheet"}
        </button>
      )}
      <FormMessage>{message}</FormMessage>
    </section>
  );
}
