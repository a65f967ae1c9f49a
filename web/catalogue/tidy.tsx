"use client";

import type { ShelfKind } from "@hearth/core";
import { useRouter } from "next/navigation";
import { Dialog, DropdownMenu } from "radix-ui";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import { v7 } from "uuid";
import { ask } from "@/forms/ask";
import { Chooser } from "@/forms/chooser";
import { usePlace } from "@/log/place";
import { merge, undoMerge } from "@/server/merge";
import { bringBack, duplicate, putAway, remove } from "@/server/tidy";
import { Said } from "@/ui/said";
import { catalogueOf, forgetCatalogue } from "./catalogue";

export type TidyKind = ShelfKind | "formula" | "process" | "product";

const MERGED = ["wax", "fragrance", "dye", "additive", "wick", "vessel", "mould"] as const;
type Merged = (typeof MERGED)[number];
const isMerged = (kind: TidyKind): kind is Merged => (MERGED as readonly string[]).includes(kind);
const PART: Record<Merged, "waxes" | "fragrances" | "dyes" | "additives" | "wicks" | "vessels" | "moulds"> = {
  wax: "waxes",
  fragrance: "fragrances",
  dye: "dyes",
  additive: "additives",
  wick: "wicks",
  vessel: "vessels",
  mould: "moulds",
};

/** Of these two entries of one thing, which stays. */
function MergeDialog({ kind, id, name, onDone }: { kind: Merged; id: string; name: string; onDone: () => void }) {
  const place = usePlace();
  const router = useRouter();
  const [others, setOthers] = useState<{ value: string; name: string }[] | null>(null);
  const [into, setInto] = useState("");
  const [said, setSaid] = useState("");
  useEffect(() => {
    catalogueOf(place.workshopId).then(
      ({ shelf }) => setOthers(shelf[PART[kind]].filter((one) => one.id !== id && !one.putAway).map((one) => ({ value: one.id, name: one.name }))),
      () => setSaid("The shelf cannot be read just now. Try again in a moment."),
    );
  }, [place.workshopId, kind, id]);
  const kept = others?.find((one) => one.value === into);
  const go = async () => {
    if (!kept) return setSaid(`Choose the ${kind} that stays.`);
    const mergeId = v7();
    const out = await ask(merge(place, { kind, goneId: id, keptId: into, mergeId }));
    if (!out.ok) return setSaid(out.message);
    onDone();
    forgetCatalogue(place.workshopId);
    router.refresh();
    toast(`${name} is now part of ${kept.name}.`, {
      action: {
        label: "Undo",
        onClick: () =>
          void ask(undoMerge(place, { mergeId })).then((back) => {
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
            For two entries of the same {kind}. Lots, counts, formulas and products of {name} go over to the one you choose; {name} is put away. What batches
            wrote down stays as it was.
          </Dialog.Description>
          <Chooser label={`The ${kind} that stays`} value={into} options={others ?? []} onValue={setInto} />
          <Said>{said}</Said>
          <div className="mt-3 flex gap-3">
            <button type="button" className="act" onClick={go}>
              Merge them
            </button>
            <Dialog.Close className="press">Cancel</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** What can be done to keep a list tidy: another like it, put away, merge, delete; each can be undone. */
export function Tidy({ kind, id, name, away, path }: { kind: TidyKind; id: string; name: string; away: boolean; path?: (id: string) => string }) {
  const place = usePlace();
  const router = useRouter();
  const [merging, setMerging] = useState(false);
  const undo = (act: () => Promise<{ ok: boolean; message?: string }>) => ({
    label: "Undo",
    onClick: () =>
      void act().then((out) => {
        if (!out.ok) toast(out.message ?? "That could not be undone.");
        forgetCatalogue(place.workshopId);
        router.refresh();
      }),
  });
  const did = (words: string, back: () => Promise<{ ok: boolean; message?: string }>) => {
    forgetCatalogue(place.workshopId);
    router.refresh();
    toast(words, { action: undo(back) });
  };
  const away_ = async (to: boolean) => {
    const out = await ask(putAway(place, { kind, id, away: to }));
    if (!out.ok) return toast(out.message);
    did(to ? `${name} is put away.` : `${name} is back.`, () => ask(putAway(place, { kind, id, away: !to })));
  };
  const another = async () => {
    const freshId = v7();
    const out = await ask(duplicate(place, { kind, id, freshId }));
    if (!out.ok) return toast(out.message);
    did(`Made “${out.value.name}”.`, () => ask(remove(place, { kind, id: freshId })));
    if (path) router.push(path(freshId));
  };
  const gone = async () => {
    const out = await ask(remove(place, { kind, id }));
    if (!out.ok) return toast(out.message, { duration: 9_000 });
    did(`${name} is deleted.`, () => ask(bringBack(place, { kind, id })));
  };
  const row = "flex min-h-[44px] cursor-pointer items-center px-4 outline-none data-[highlighted]:bg-act data-[highlighted]:text-act-ink";
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="press !min-w-[44px] !px-2" aria-label={`More for ${name}`}>
          ⋯
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="end" collisionPadding={8} className="z-50 min-w-[210px] border-[3px] border-ink bg-sheet">
            {kind === "person" || kind === "instrument" ? null : (
              <DropdownMenu.Item className={row} onSelect={() => void another()}>
                Duplicate
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item className={row} onSelect={() => void away_(!away)}>
              {away ? "Take back out" : "Put away"}
            </DropdownMenu.Item>
            {isMerged(kind) && !away ? (
              <DropdownMenu.Item className={row} onSelect={() => setMerging(true)}>
                Merge into another…
              </DropdownMenu.Item>
            ) : null}
            <DropdownMenu.Item className={row} onSelect={() => void gone()}>
              Delete
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {merging && isMerged(kind) ? <MergeDialog kind={kind} id={id} name={name} onDone={() => setMerging(false)} /> : null}
    </>
  );
}
