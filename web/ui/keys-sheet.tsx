"use client";

import { Dialog } from "radix-ui";
import { Link } from "./address";
import { LettersToggle } from "./letters-toggle";

export interface Key {
  key: string;
  does: string;
  run: () => void;
}

/** The list of all keys of the view that is shown. */
export function KeysSheet({ keys, onClose }: { keys: Key[]; onClose: () => void }) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/50" />
        <Dialog.Content className="sheet fixed top-[8vh] left-1/2 max-h-[84vh] w-[min(560px,94vw)] -translate-x-1/2 overflow-auto" aria-describedby={undefined}>
          <Dialog.Title asChild>
            <h2>Keys</h2>
          </Dialog.Title>
          <p className="mt-1 text-soft">
            Shortcuts are off while you type in a field. Everything can also be reached with Tab and Enter. <Link href="/words">Glossary</Link>
          </p>
          <dl className="mt-3 grid grid-cols-[80px_1fr] gap-y-2">
            {[{ key: "?", does: "this list" }, { key: "F1", does: "in a field with a ?: explain its term" }, ...keys].map((item) => (
              <div key={item.key + item.does} className="contents">
                <dt>
                  <kbd className="figure inline-block min-w-[34px] border-2 border-ink px-2 text-center text-[18px]">{item.key}</kbd>
                </dt>
                <dd>{item.does}</dd>
              </div>
            ))}
          </dl>
          <LettersToggle />
          <Dialog.Close className="press mt-2">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
