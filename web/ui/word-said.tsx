"use client";

import { Link } from "@/ui/address";
import { GLOSSARY } from "./glossary";
import { useUnits } from "./units";

/** The explanation of a glossary word. */
export function WordSaid({ word }: { word: string }) {
  const units = useUnits();
  return (
    <>
      <p className="mt-1">{units.say(GLOSSARY.find((item) => item.name === word)?.says ?? "")}</p>
      <Link href={`/words#${word.replaceAll(" ", "-")}`} className="mt-2 inline-block text-[15px]">
        Full glossary
      </Link>
    </>
  );
}
