"use client";

import type { ShelfKind } from "@hearth/core";
import { useState } from "react";
import { v7 } from "uuid";
import { ask } from "@/forms/ask";
import { usePlace } from "@/log/place";
import { bringBack, duplicate, putAway, remove } from "@/server/tidy";
import { useRouter } from "@/ui/address";
import { later } from "@/ui/later";
import { Menu } from "@/ui/menu";
import { toast } from "@/ui/toast";
import { forgetCatalogue } from "./catalogue";
import type { Merged, MergeProps } from "./merge-dialog";

export type TidyKind = ShelfKind | "formula" | "process" | "product" | "set";

const MERGED: readonly string[] = ["wax", "fragrance", "dye", "additive", "wick", "vessel", "mould"] satisfies Merged[];
const isMerged = (kind: TidyKind): kind is Merged => MERGED.includes(kind);

const MergeDialog = later<MergeProps>(async () => (await import("./merge-dialog")).MergeDialog, { typed: true });

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
  const items = [
    ...(kind === "person" || kind === "instrument" ? [] : [{ name: "Duplicate", act: () => void another() }]),
    { name: away ? "Take back out" : "Put away", act: () => void away_(!away) },
    ...(isMerged(kind) && !away ? [{ name: "Merge into another…", act: () => setMerging(true) }] : []),
    { name: "Delete", act: () => void gone() },
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
