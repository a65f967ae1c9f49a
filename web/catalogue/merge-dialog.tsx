"use client";

import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { Chooser } from "@/forms/chooser";
import { useWorkshop } from "@/log/workshop";
import { merge, undoMerge } from "@/server/inventory/merge";
import { useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { toast } from "@/ui/toast";
import { catalogueOf, forgetCatalogue } from "./catalogue";

export type Merged = "wax" | "fragrance" | "dye" | "additive" | "wick" | "vessel" | "mold";

export interface MergeProps {
  kind: Merged;
  id: string;
  name: string;
  onDone: () => void;
}

const PART: Record<Merged, "waxes" | "fragrances" | "dyes" | "additives" | "wicks" | "vessels" | "molds"> = {
  wax: "waxes",
  fragrance: "fragrances",
  dye: "dyes",
  additive: "additives",
  wick: "wicks",
  vessel: "vessels",
  mold: "molds",
};

/** Asks which of two entries of the same thing is kept, and merges them. */
export function MergeDialog({ kind, id, name, onDone }: MergeProps) {
  const workshop = useWorkshop();
  const router = useRouter();
  const [others, setOthers] = useState<{ value: string; name: string }[] | null>(null);
  const [into, setInto] = useState("");
  const [message, setMessage] = useState("");
  useEffect(() => {
    catalogueOf(workshop.workshopId).then(
      ({ shelf }) => setOthers(shelf[PART[kind]].filter((item) => item.id !== id && !item.archived).map((item) => ({ value: item.id, name: item.name }))),
      () => setMessage("Cannot load the shelf. Try again in a moment."),
    );
  }, [workshop.workshopId, kind, id]);
  const kept = others?.find((item) => item.value === into);
  const go = async () => {
    if (!kept) return setMessage(`Choose the ${kind} to keep.`);
    const mergeId = v7();
    const out = await callAction(merge(workshop, { kind, goneId: id, keptId: into, mergeId }));
    if (!out.ok) return setMessage(out.message);
    onDone();
    forgetCatalogue(workshop.workshopId);
    router.refresh();
    toast(`${name} is now part of ${kept.name}.`, {
      action: {
        label: "Undo",
        onClick: () =>
          void callAction(undoMerge(workshop, { mergeId })).then((back) => {
            if (!back.ok) return toast(back.message);
            router.refresh();
          }),
      },
    });
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onDone()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/50" />
        <Dialog.Content className="sheet fixed top-[12vh] left-1/2 z-50 w-[min(560px,94vw)] -translate-x-1/2">
          <Dialog.Title className="text-[21px]">Merge {name} into another</Dialog.Title>
          <Dialog.Description className="mt-1 mb-3 text-soft">
            Merges two entries of the same {kind}. Lots, counts, formulas and products of {name} move to the one you choose; {name} is archived. Past batches do
            not change.
          </Dialog.Description>
          <Chooser label={`The ${kind} that stays`} value={into} options={others ?? []} onValue={setInto} />
          <FormMessage>{message}</FormMessage>
          <div className="mt-3 flex gap-3">
            <button type="button" className="action-button" onClick={go}>
              Merge
            </button>
            <Dialog.Close className="press">Cancel</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
