import { GLOSSARY } from "@/ui/glossary";
import { PageLayout } from "@/ui/side-notes";

export const metadata = { title: "Words" };

/** The words of the trade in one place; each stands explained at its field too. */
export default function WordsPage() {
  return (
    <PageLayout title="Words of the trade" lead="As they are used here. A ? beside a field explains its word there; so does F1 in the field.">
      <dl className="columns-1 gap-8 lg:columns-2">
        {[...GLOSSARY]
          .sort((a, b) => a.name.localeCompare(b.name))
          .map((word) => (
            <div key={word.name} id={word.name.replaceAll(" ", "-")} className="break-inside-avoid border-b border-line py-3 target:bg-sheet target:px-3">
              <dt className="text-[19px] font-bold">{word.name}</dt>
              <dd className="text-[16px]">{word.says}</dd>
            </div>
          ))}
      </dl>
    </PageLayout>
  );
}
