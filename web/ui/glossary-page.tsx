"use client";

import { GLOSSARY } from "./glossary";
import { PageLayout } from "./side-notes";
import { useUnits } from "./units";

/** The words of the trade in one place; each stands explained at its field too. */
export function GlossaryPage() {
  const units = useUnits();
  return (
    <PageLayout title="Glossary" lead="Terms as Hearth Jar uses them. The ? beside a field, or F1 in it, explains its term.">
      <dl className="columns-1 gap-8 lg:columns-2">
        {[...GLOSSARY]
          .sort((a, b) => a.name.localeCompare(b.name))
          .map((word) => (
            <div key={word.name} id={word.name.replaceAll(" ", "-")} className="break-inside-avoid border-b border-line py-3 target:bg-sheet target:px-3">
              <dt className="text-[19px] font-bold">{word.name}</dt>
              <dd className="text-[16px]">{units.say(word.says)}</dd>
            </div>
          ))}
      </dl>
    </PageLayout>
  );
}
