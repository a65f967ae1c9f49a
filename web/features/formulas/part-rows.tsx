"use client";

import { valueForFamily } from "@hearth/core";
import { Chooser } from "@/forms/chooser";
import { Field, type useFields } from "@/forms/fields";
import { suggestedFirst } from "@/forms/matches";
import type { ShelfMaterials, Stocks } from "@/server/inventory/shelf";
import { useUnits } from "@/ui/units";
import { press } from "@/ui/variants";
import type { PartKind, PartRow } from "./editor-fields";

const LABEL: Record<PartKind, string> = { wax: "Wax", fragrance: "Fragrance", additive: "Additive", dye: "Dye" };

interface Props {
  rows: readonly PartRow[];
  shelf: ShelfMaterials;
  stocks: Stocks;
  recentlyUsed: Record<string, string>;
  fields: Pick<ReturnType<typeof useFields>, "bind" | "text">;
  family: string;
  onLook: () => void;
  onChoose: (kind: PartKind, key: string, id: string) => void;
  onAdd: (kind: PartKind) => void;
  onDrop: (key: string) => void;
  /** Something new is to be put on the shelf for this line. */
  onNew: (kind: PartKind, key: string, name: string) => void;
}

/** What goes in, line by line: waxes and fragrances by share, additives by percent of the wax, dyes by their dose. */
export function PartRows({ rows, shelf, stocks, recentlyUsed, fields, family, onLook, onChoose, onAdd, onDrop, onNew }: Props) {
  const units = useUnits();
  const optionsOf = (kind: PartKind, first: boolean, chosen: string) => {
    const list: { id: string; name: string; family?: string; kind?: string; archived: boolean }[] =
      kind === "wax" ? shelf.waxes : kind === "fragrance" ? shelf.fragrances : kind === "additive" ? shelf.additives : shelf.dyes;
    const options = suggestedFirst(
      list.filter((item) => !item.archived || item.id === chosen),
      recentlyUsed,
      (id) => stocks[id]?.onHand,
    ).map((item) => ({
      value: item.id,
      name: item.name,
      note: [kind === "wax" ? item.family : kind === "dye" ? item.kind : "", stocks[item.id] ? `${units.bulk(stocks[item.id]?.onHand ?? 0)} on hand` : ""]
        .filter(Boolean)
        .join(", "),
    }));
    return kind === "fragrance" && first ? [...options, { value: "", name: "none: unscented", note: "" }] : options;
  };
  return (["wax", "fragrance", "additive", "dye"] as const).map((kind) => {
    const mine = rows.filter((row) => row.kind === kind);
    const shares = mine.map((row) => Number(fields.text(`${row.key}:share`).replace(",", ".")));
    const sum = shares.reduce((all, value) => all + value, 0);
    return (
      <div key={kind} className="grid gap-1">
        {mine.map((row, index) => {
          const suffix = index === 0 ? "" : ` ${index + 1}`;
          const byShare = kind === "wax" || kind === "fragrance";
          const bound = fields.bind(`${row.key}:id`);
          const dye = kind === "dye" ? shelf.dyes.find((dye) => dye.id === fields.text(`${row.key}:id`)) : null;
          const color = dye ? valueForFamily(dye.colors, family) : null;
          const oil = kind === "fragrance" ? shelf.fragrances.find((fragrance) => fragrance.id === fields.text(`${row.key}:id`)) : null;
          const [rated, best] = oil ? [valueForFamily(oil.ratings, family), valueForFamily(oil.bestLoads, family)] : [null, null];
          const ofOil = [rated ? `strength ${rated}` : "", best ? `best at ${best}` : ""].filter(Boolean).join(", ");
          return (
            <div
              key={row.key}
              className={`grid items-start gap-x-3 ${byShare && mine.length === 1 ? "grid-cols-1" : kind === "dye" ? "grid-cols-[96px_minmax(0,1fr)_44px] [&>:first-child]:col-span-3" : "grid-cols-[minmax(0,1fr)_132px_44px]"}`}
            >
              <Chooser
                label={LABEL[kind] + suffix}
                value={bound.value}
                error={bound.error}
                onLeave={bound.onLeave}
                onValue={(id) => onChoose(kind, row.key, id)}
                options={optionsOf(kind, index === 0, bound.value)}
                hint={color ? `Sets ${color} in ${family}.` : ofOil ? `In ${family}: ${ofOil}.` : undefined}
                onLook={onLook}
                add={{ label: `a new ${kind}`, run: (name) => onNew(kind, row.key, name) }}
              />
              {byShare && mine.length === 1 ? null : (
                <Field
                  label={byShare ? `Share${suffix}` : `Dose${suffix}`}
                  {...fields.bind(`${row.key}:share`)}
                  inputMode="decimal"
                  unit={
                    byShare && sum > 0 && Number.isFinite(sum)
                      ? `${(((shares[index] ?? 0) / sum) * 100).toFixed(1)} %`
                      : kind === "additive"
                        ? "% of wax"
                        : undefined
                  }
                />
              )}
              {kind === "dye" ? (
                <Field
                  label={`By${suffix}`}
                  {...fields.bind(`${row.key}:by`)}
                  options={[
                    { value: "drops", label: units.mass === "g" ? "drops per kg" : "drops per lb" },
                    { value: "pieces", label: units.mass === "g" ? "pieces per kg" : "pieces per lb" },
                    { value: "percent", label: "% of wax" },
                  ]}
                />
              ) : null}
              {byShare && mine.length === 1 ? null : (
                <button
                  type="button"
                  className="press mt-[26px] !px-0"
                  aria-label={`Leave out ${LABEL[kind].toLowerCase()}${suffix}`}
                  onClick={() => onDrop(row.key)}
                >
                  ✕
                </button>
              )}
            </div>
          );
        })}
        {kind === "dye" ? (
          <div className="flex flex-wrap gap-2">
            {(["wax", "fragrance", "additive", "dye"] as const).map((item) => (
              <button key={item} type="button" className={press({ size: "small" })} onClick={() => onAdd(item)}>
                + {item === "wax" || item === "fragrance" ? `another ${item}` : item === "additive" ? "an additive" : "a dye"}
              </button>
            ))}
          </div>
        ) : null}
      </div>
    );
  });
}
