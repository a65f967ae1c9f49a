"use client";

import dynamic from "next/dynamic";
import { useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { useKeys } from "@/ui/keys";
import type { Station } from "@/ui/station";

/** What is looked in comes when somebody looks: most pages are worked without it. */
const FindDialog = dynamic(() => import("./find-dialog").then((one) => one.FindDialog), { ssr: false });

/** Goes to anything by its name: a batch, a formula, a thing on the shelf, a station. */
export function Find({ stations }: { stations: Station[] }) {
  const [open, setOpen] = useState(false);
  const [asked, setAsked] = useState(false);
  const look = () => {
    setAsked(true);
    setOpen(true);
  };
  useKeys([{ key: "/", does: "find a batch, a formula or a thing by name", act: look }]);
  useHotkeys("mod+k", () => (open ? setOpen(false) : look()), { enableOnFormTags: true, preventDefault: true });
  return (
    <>
      <button type="button" aria-haspopup="dialog" className="min-h-[44px] border-2 border-line px-3 text-[14px] lg:min-h-[36px]" onClick={look}>
        Find
      </button>
      {asked ? <FindDialog stations={stations} open={open} onOpen={setOpen} /> : null}
    </>
  );
}
