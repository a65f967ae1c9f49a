"use client";

import type { ToBuy } from "@hearth/core";
import { useUnits } from "@/ui/units";
import { WideTable } from "@/ui/wide-table";

/** What has to be bought for what is planned, by when, in the packs in which it was bought last. */
export function ShoppingList({ toBuy, drawn }: { toBuy: ToBuy[]; drawn: boolean }) {
  const units = useUnits();
  const amount = (item: ToBuy, n: number) => (item.counted ? String(n) : units.bulk(n));
  const sum = toBuy.reduce((all, item) => all + (item.cost ?? 0), 0);
  const open = toBuy.filter((item) => item.cost === null).length;
  return (
    <section className="mt-8" aria-label="Shopping list">
      <h2 className="border-b-[3px] border-ink pb-1">Shopping list</h2>
      {toBuy.length === 0 ? (
        <p className="mt-2 text-soft">{drawn ? "Nothing to buy: the stock is enough." : "Nothing planned needs materials."}</p>
      ) : (
        <>
          <WideTable label="Shopping list, as a table" heads={["what", "missing", "by", "needed, on hand, promised", "packs", "about"]} least={560}>
            {toBuy.map((item) => (
              <tr key={item.id} className="border-t border-line align-baseline">
                <th scope="row" className="py-1 pr-4 font-semibold">
                  {item.name}
                </th>
                <td className="figure pr-4 text-[22px] whitespace-nowrap">{amount(item, item.short)}</td>
                <td className="pr-4 whitespace-nowrap">{item.by ? units.onDay(item.by) : ""}</td>
                <td className="pr-4 text-[14px] text-soft">
                  {amount(item, item.needed)}, {item.onHand === null ? "not tracked" : amount(item, item.onHand)}, {amount(item, item.promised)}
                </td>
                <td className="pr-4">
                  {item.packs === null || !item.pack ? (
                    <span className="text-soft">no purchase recorded</span>
                  ) : (
                    `${item.packs} × ${amount(item, item.pack.amount)}`
                  )}
                </td>
                <td className="figure text-[18px] whitespace-nowrap">{item.cost === null ? "" : units.money(item.cost)}</td>
              </tr>
            ))}
          </WideTable>
          <p className="mt-2 text-[15px]">
            {sum > 0 ? (
              <>
                Together about <strong>{units.money(sum)}</strong>
                {open > 0 ? `, and ${open} ${open === 1 ? "line" : "lines"} without a price` : ""}.{" "}
              </>
            ) : null}
            <span className="text-soft">Packs and prices are those of the last lot.</span>
          </p>
        </>
      )}
    </section>
  );
}
