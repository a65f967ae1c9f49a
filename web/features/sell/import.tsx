"use client";

import { parseDay, readOrderRows, type Sellable } from "@hearth/core";
import { useMemo, useState, useTransition } from "react";
import { v7 } from "uuid";
import { callAction } from "@/forms/call-action";
import { Field, useFields, words } from "@/forms/fields";
import { parseFile, parseText } from "@/forms/file-parse";
import { useWorkshop } from "@/log/workshop";
import { beginOrder } from "@/server/sales/commands";
import { Link, useRouter } from "@/ui/address";
import { FormMessage } from "@/ui/form-message";
import { Aside, PageLayout } from "@/ui/side-notes";
import { toast } from "@/ui/toast";
import { useUnits } from "@/ui/units";

/** Orders out of a shop's file: shown before any is taken. */
export function ImportOrders({ sellables, today }: { sellables: Sellable[]; today: string }) {
  const units = useUnits();
  const workshop = useWorkshop();
  const router = useRouter();
  const [message, setMessage] = useState("");
  const [busy, start] = useTransition();
  const fields = useFields(useMemo(() => ({ rows: words("", 200_000) }), []));
  const text = fields.text("rows");
  const read = useMemo(() => {
    if (text.trim() === "") return null;
    const table = parseText(text);
    if (!table.ok) return { orders: [], faults: [{ row: 1, fault: table.message }] };
    return readOrderRows(table.sheet.heads, table.sheet.rows, sellables, (day) => parseDay(day, today, units.locale, true));
  }, [text, sellables, today, units.locale]);
  // Made once for what is shown: pressing twice takes each order once.
  const ids = useMemo(() => (read?.orders ?? []).map(() => v7()), [read]);
  const take = () =>
    start(async () => {
      if (!read) return;
      let taken = 0;
      for (const [index, plan] of read.orders.entries()) {
        const outcome = await callAction(beginOrder(workshop, { orderId: ids[index], plan }));
        if (!outcome.ok) return setMessage(`${taken} of ${read.orders.length} orders were imported. ${plan.name}: ${outcome.message}`);
        taken += 1;
      }
      toast(`${taken} ${taken === 1 ? "order" : "orders"} imported.`);
      router.push("/sell");
    });
  const choose = async (file: File | undefined) => {
    if (!file) return;
    const table = parseFile(new Uint8Array(await file.arrayBuffer()));
    if (!table.ok) return setMessage(table.message);
    setMessage("");
    const quoted = (cell: string) => (/[",\n;\t]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell);
    fields.set("rows", [table.sheet.heads, ...table.sheet.rows].map((row) => row.map(quoted).join(",")).join("\n"));
  };
  return (
    <PageLayout
      title="Import orders"
      lead="One line in each row: order, date, item and packs."
      actions={
        <>
          <button
            type="button"
            className="action-button"
            data-next-step
            disabled={busy || !read || read.orders.length === 0 || read.faults.length > 0}
            onClick={take}
          >
            {read && read.orders.length > 0 ? `Take ${read.orders.length} ${read.orders.length === 1 ? "order" : "orders"}` : "Import orders"}
          </button>
          <Link className="press" href="/sell">
            Back to Sell
          </Link>
        </>
      }
      side={
        <Aside title="Recognized columns">
          order (or customer), wanted_by (or date), item (or product, sku), packs (or quantity), contact. Items are matched by the name of a product or set.
        </Aside>
      }
    >
      <section className="sheet">
        <p className="mb-2">
          <label className="block text-[15px] font-semibold" htmlFor="orders-file">
            A CSV file
          </label>
          <input id="orders-file" type="file" accept=".csv,text/csv,text/plain" onChange={(event) => void choose(event.target.files?.[0])} />
        </p>
        <Field label="Or paste rows" {...fields.bind("rows")} lines={8} placeholder="order, wanted_by, item, packs" />
        <FormMessage>{message}</FormMessage>
      </section>
      {read ? (
        <section className="mt-5" aria-label="Preview">
          {read.faults.map((fault) => (
            <p key={fault.row} className="font-semibold text-hot">
              ▲ Row {fault.row}: {fault.fault}
            </p>
          ))}
          <ul>
            {read.orders.map((order) => (
              <li key={`${order.name} ${order.wantedOn}`} className="border-b border-line py-2">
                <strong>{order.name}</strong>
                {order.wantedOn ? `, by ${units.onDate(order.wantedOn)}` : ""}: {order.lines.map((line) => `${line.packs} × ${line.name}`).join(", ")}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
    </PageLayout>
  );
}
