"use client";

import type { ShelfKind } from "@hearth/core";
import { useState } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import { archive, duplicate, remove, restore } from "@/server/workshops/tidy";
import { useRouter } from "@/ui/address";
import { lazy } from "@/ui/lazy";
import { Menu } from "@/ui/menu";
import { toast } from "@/ui/toast";
import { forgetCatalogue } from "./catalogue";
import type { Merged, MergeProps } from "./merge-dialog";

export type TidyKind = ShelfKind | "formula" | "process" | "product" | "set";

const MERGED: readonly string[] = ["wax", "fragrance", "dye", "additive", "wick", "vessel", "mold"] satisfies Merged[];
const isMerged = (kind: TidyKind): kind is Merged => MERGED.includes(kind);

const MergeDialog = lazy<MergeProps>(async () => (await import("./merge-dialog")).MergeDialog, { typed: true });

/** The actions that keep a list tidy: duplicate, archive, merge, delete; each can be undone. */
export function Tidy({ kind, id, name, away, path }: { kind: TidyKind; id: string; name: string; away: boolean; path?: (id: string) => string }) {
  const workshop = useWorkshop();
  const router = useRouter();
  const [merging, setMerging] = useState(false);
  const undo = (run: () => Promise<{ ok: boolean; message?: string }>) => ({
    label: "Undo",
    onClick: () =>
      void run().then((out) => {
        if (!out.ok) toast(out.message ?? "That could not be undone.");
        forgetCatalogue(workshop.workshopId);
        router.refresh();
      }),
  });
  const did = (words: string, back: () => Promise<{ ok: boolean; message?: string }>) => {
    forgetCatalogue(workshop.workshopId);
    router.refresh();
    toast(words, { action: undo(back) });
  };
  const away_ = async (to: boolean) => {
    const out = await callAction(archive(workshop, { kind, id, away: to }));
    if (!out.ok) return toast(out.message);
    did(to ? `${name} is archived.` : `${name} is restored.`, () => callAction(archive(workshop, { kind, id, away: !to })));
  };
  const another = async () => {
    const freshId = v7();
    const out = await callAction(duplicate(workshop, { kind, id, freshId }));
    if (!out.ok) return toast(out.message);
    did(`Created “${out.value.name}”.`, () => callAction(remove(workshop, { kind, id: freshId })));
    if (path) router.push(path(freshId));
  };
  const gone = async () => {
    const out = await callAction(remove(workshop, { kind, id }));
    if (!out.ok) return toast(out.message, { duration: 9_000 });
    did(`${name} is deleted.`, () => callAction(restore(workshop, { kind, id })));
  };
  const items = [
    ...(kind === "person" || kind === "instrument" ? [] : [{ name: "Duplicate", run: () => void another() }]),
    { name: away ? "Restore" : "Archive", run: () => void away_(!away) },
    ...(isMerged(kind) && !away ? [{ name: "Merge into another…", run: () => setMerging(true) }] : []),
    { name: "Delete", run: () => void gone() },
  ];
  return (
    <>
      <Menu label={`More for ${name}`} className="press !min-w-[44px] !px-2" align="end" items={items}>
        ⋯
      </Menu>
      {merging && isMerged(kind) ? <MergeDialog kind={kind} id={id} name={name} onDone={() => setMerging(false)} /> : null}
    </>
  );
}
