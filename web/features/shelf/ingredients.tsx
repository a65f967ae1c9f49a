import type { SheetIngredient } from "@hearth/core";
import { useUnits } from "@/ui/units";
import { WideTable } from "@/ui/wide-table";

/** The ingredients of a safety data sheet, with what a label is worked out from. */
export function Ingredients({ rows }: { rows: readonly SheetIngredient[] }) {
  const units = useUnits();
  if (rows.length === 0) return <p className="text-soft">No classified ingredients listed.</p>;
  return (
    <WideTable label="Ingredients" least={640} heads={["ingredient", "share", "classes", "M", "ATE", "own limits"]}>
      {rows.map((row) => (
        <tr key={row.name} className="border-t border-line align-baseline">
          <td className="py-1 pr-4">
            {row.name}
            {row.cas || row.ec ? <span className="block text-[14px] text-soft">{[row.cas, row.ec].filter(Boolean).join(", ")}</span> : null}
          </td>
          <td className="figure pr-4">
            {row.from === undefined ? "" : `${units.n(row.from, 3)}–`}
            {units.n(row.percent, 3)} %
          </td>
          <td className="pr-4">
            {row.classes.join(", ") || "none"}
            {row.unread.length > 0 ? <span className="block text-hot">▲ not calculated here: {row.unread.join(", ")}</span> : null}
          </td>
          <td className="pr-4">
            {[row.m ? units.n(row.m, 0) : "", row.mAcute ? `acute ${units.n(row.mAcute, 0)}` : "", row.mChronic ? `chronic ${units.n(row.mChronic, 0)}` : ""]
              .filter(Boolean)
              .join(", ")}
          </td>
          <td className="pr-4">
            {[
              row.ateOral ? `oral ${units.n(row.ateOral, 0)} mg/kg` : "",
              row.ateDermal ? `dermal ${units.n(row.ateDermal, 0)} mg/kg` : "",
              row.ateInhaled ? `inhaled ${units.n(row.ateInhaled, 2)} mg/l` : "",
            ]
              .filter(Boolean)
              .join(", ")}
          </td>
          <td>{row.limits.map((limit) => `${limit.class} ≥ ${units.n(limit.percent, 4)} %`).join(", ")}</td>
        </tr>
      ))}
    </WideTable>
  );
}
