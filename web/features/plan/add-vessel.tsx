"use client";

import { AddBeside } from "@/catalogue/add-beside";
import type { useShelf } from "@/catalogue/use-shelf";

/** Adds a vessel beside a plan, by the name that was looked for, and takes it where it was missing. Nothing while no name is looked for. */
export function AddVessel({
  name,
  known,
  onMade,
  onDone,
}: {
  name: string | null;
  known: ReturnType<typeof useShelf>;
  onMade: (id: string) => void;
  onDone: () => void;
}) {
  return name === null ? null : (
    <AddBeside
      kind="vessel"
      name={name}
      waxes={known.shelf.waxes}
      onDone={onDone}
      onMade={async (id) => {
        await known.again();
        onMade(id);
        onDone();
      }}
    />
  );
}
