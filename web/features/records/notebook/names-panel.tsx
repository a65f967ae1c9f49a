import { matchName, type NameChoice, type NamedKind, type NameUse, parseMass, type ShelfNames, WAX_FAMILIES } from "@hearth/core";
import { useState } from "react";
import { useUnits } from "@/ui/units";
import type { NotebookState } from "./use-notebook";

const KIND_WORDS: Record<NamedKind, string> = { wax: "wax", fragrance: "scent", vessel: "vessel", wick: "wick" };

/** The fill of a vessel that is put on the shelf: kept as it was typed, and taken over where it can be read. */
function FillOf({ choice, name, onChoose }: { choice: Extract<NameChoice, { name: string }>; name: string; onChoose: (choice: NameChoice) => void }) {
  const units = useUnits();
  const [typed, setTyped] = useState(choice.fillMg ? units.typed.g(choice.fillMg) : "");
  const read = typed.trim() === "" ? null : parseMass(typed, { unit: units.mass });
  const fault = read && !read.ok ? read.message : "";
  return (
    <label className="text-[15px]">
      Wax in one{" "}
      <input
        className="entry inline-block !w-[12ch]"
        aria-label={`Wax in one ${name}`}
        aria-invalid={fault !== ""}
        value={typed}
        placeholder={units.say("{180 g|6.5 oz}")}
        onChange={(event) => {
          setTyped(event.target.value);
          const next = parseMass(event.target.value, { unit: units.mass });
          onChoose({ ...choice, fillMg: next.ok ? next.value : undefined });
        }}
      />
      {fault ? <span className="block text-hot">▲ {fault}</span> : null}
    </label>
  );
}

function NameRow({ use, choice, shelf, choose }: { use: NameUse; choice: NameChoice; shelf: ShelfNames; choose: NotebookState["choose"] }) {
  const isNew = !("id" in choice);
  const match = matchName(use.name, shelf[use.kind]);
  return (
    <tr className="border-t border-line align-middle">
      <td className="py-1 pr-3 text-soft">{KIND_WORDS[use.kind]}</td>
      <th scope="row" className="py-1 pr-3 text-left font-semibold break-words">
        {use.name}
      </th>
      <td className="figure py-1 pr-3 text-right text-[18px]">{use.rows}</td>
      <td className="py-1 pr-3">
        <select
          className="entry"
          aria-label={`What ${use.name} is`}
          value={isNew ? "" : choice.id}
          onChange={(event) =>
            choose(use.key, event.target.value === "" ? { name: use.name, ...(use.kind === "wax" ? { family: "other" } : {}) } : { id: event.target.value })
          }
        >
          <option value="">put on the shelf as new</option>
          {shelf[use.kind].map((item) => (
            <option key={item.id} value={item.id}>
              {item.name}
            </option>
          ))}
        </select>
        {match && !match.isSame && !isNew && choice.id === match.id ? <span className="block text-[14px] text-soft">spelled nearly the same</span> : null}
      </td>
      <td className="py-1">
        {isNew && use.kind === "wax" ? (
          <select
            className="entry"
            aria-label={`Family of ${use.name}`}
            value={choice.family ?? "other"}
            onChange={(event) => choose(use.key, { ...choice, family: event.target.value })}
          >
            {WAX_FAMILIES.map((family) => (
              <option key={family} value={family}>
                {family}
              </option>
            ))}
          </select>
        ) : null}
        {isNew && use.kind === "vessel" ? <FillOf choice={choice} name={use.name} onChoose={(next) => choose(use.key, next)} /> : null}
      </td>
    </tr>
  );
}

/** Every name of the notebook that is not on the shelf by that very name, and what it means; the others are only counted. */
export function NamesPanel({ preview, shelf, choose }: { preview: NonNullable<NotebookState["preview"]>; shelf: ShelfNames; choose: NotebookState["choose"] }) {
  const known = preview.uses.filter((use) => matchName(use.name, shelf[use.kind])?.isSame);
  const open = preview.uses.filter((use) => !known.includes(use));
  if (preview.uses.length === 0) return null;
  return (
    <section className="mt-6" aria-label="Names">
      <h2 className="border-b-[3px] border-ink pb-1">
        Names{" "}
        <span className="text-[16px] font-normal text-soft">
          {known.length} on the shelf, {open.length} to look at
        </span>
      </h2>
      {open.length > 0 ? (
        <div className="overflow-x-auto">
          <table className="mt-2 w-full min-w-[600px] text-left">
            <thead className="text-[14px] text-soft">
              <tr>
                <th className="font-normal">kind</th>
                <th className="font-normal">in the sheet</th>
                <th className="pr-3 text-right font-normal">rows</th>
                <th className="font-normal">is</th>
                <th className="font-normal">as new</th>
              </tr>
            </thead>
            <tbody>
              {open.map((use) => (
                <NameRow key={use.key} use={use} choice={preview.choices[use.key] ?? { name: use.name }} shelf={shelf} choose={choose} />
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
    </section>
  );
}
