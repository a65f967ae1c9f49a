"use client";

import { embedsOf, writeEmbeds } from "@hearth/core";
import { memo } from "react";
import { EmbedFields } from "@/catalogue/embed-fields";
import { Chooser } from "@/forms/chooser";
import { DeferredField, type useFields } from "@/forms/fields";
import type { Shelf } from "@/server/inventory/shelf";
import { JarSection } from "@/ui/jar-section";
import { useUnits } from "@/ui/units";
import type { Line } from "./model";
import { embedsIn } from "./planner-fields";

const PARTS = ["full", "half fill", "layer 1 of 2", "layer 2 of 2", "layer 1 of 3", "layer 2 of 3", "layer 3 of 3"];

type LineFields = Pick<ReturnType<typeof useFields>, "bind" | "text" | "set">;

interface LineProps {
  line: Line;
  /** What goes into one piece, as it is worked out. */
  fillMg: number;
  scale: number;
  wicks: Shelf["wicks"];
  embeds: Shelf["embeds"];
  onLook: () => void;
}

/** What is filled, drawn, with what goes into one. */
const LineHead = memo(function LineHead({ line: { product, container }, fillMg, scale }: Pick<LineProps, "line" | "fillMg" | "scale">) {
  const units = useUnits();
  return (
    <>
      <JarSection {...container} wicks={null} headspaceUm={null} fillMg={fillMg} scale={scale} />
      <div className="min-w-0 pb-2">
        <div className="font-bold break-words">
          {product?.name ?? container.name}
          {container.state === "test jar" ? <span className="font-normal text-safety"> ⚠ test jar</span> : null}
          {container.container === "mold" && !product ? (
            <span className="font-normal text-soft">
              {" "}
              {container.state}
              {(container.cavities ?? 1) > 1 ? `, ${container.cavities} at a time` : ""}
            </span>
          ) : null}
        </div>
        <span className="figure text-[20px]">{units.g(fillMg)}</span> <span className="text-soft">each{product ? `, ${container.name}` : ""}</span>
        {container.sizeEstimated ? <div className="text-[14px] text-soft">size estimated: measure it, then choose its wick</div> : null}
        {product?.wickId && product.wickTest !== "tested" ? (
          <div className={`text-[14px] ${product.wickTest === "failed" ? "font-semibold text-safety" : "text-soft"}`}>
            {product.wickTest === "failed" ? "⚠ its wick failed" : "burn test due"}
          </div>
        ) : null}
      </div>
    </>
  );
});

/** How far a line is filled, with which wicks, and what is laid in. */
function LineChoices({
  line: { key, product, container },
  wicks,
  embeds,
  fields,
  onLook,
  pots,
}: Pick<LineProps, "line" | "wicks" | "embeds" | "onLook"> & { fields: LineFields; pots: readonly string[] }) {
  const units = useUnits();
  const name = product?.name ?? container.name;
  const wick = wicks.find((item) => item.id === fields.text(`wick:${key}`))?.name ?? "no wick";
  const said = [
    container.container === "vessel" ? fields.text(`part:${key}`) : "",
    wick,
    fields.text(`wick:${key}`) && fields.text(`wicks:${key}`) !== "1" ? `${fields.text(`wicks:${key}`)} each` : "",
  ];
  const laidIn = embedsIn(fields.text(`embeds:${key}`));
  said.push(writeEmbeds(embedsOf(laidIn, embeds)));
  if (pots.length > 0) said.unshift(`from pot ${Number(fields.text(`pot:${key}`)) + 1}`);
  return (
    <details className="col-span-full -mt-1 text-[15px]">
      <summary className="flex min-h-[32px] cursor-pointer items-center gap-2">
        <span className="text-soft">{said.filter(Boolean).join(", ")}</span>
        <span className="underline">Change</span>
      </summary>
      <div className="grid grid-cols-[minmax(0,auto)_minmax(0,1fr)_auto] items-start gap-2 pt-1">
        {container.container === "vessel" ? (
          <select
            aria-label={`How far ${name} is filled`}
            className="entry !w-auto !min-h-[44px] !py-0 text-[15px]"
            value={fields.text(`part:${key}`)}
            onChange={(event) => fields.set(`part:${key}`, event.target.value)}
          >
            {PARTS.map((part) => (
              <option key={part}>{part}</option>
            ))}
          </select>
        ) : null}
        <div className={container.container === "vessel" ? "" : "col-span-2"}>
          <Chooser
            quiet
            label={`Wick of ${name}`}
            value={fields.text(`wick:${key}`)}
            options={[{ value: "", name: "no wick" }, ...wicks.map((wick) => ({ value: wick.id, name: wick.name, note: wick.kind }))]}
            onLook={onLook}
            onValue={(value) => fields.set(`wick:${key}`, value)}
          />
        </div>
        {fields.text(`wick:${key}`) ? (
          <select
            aria-label={`Wicks in one ${name}`}
            className="entry !w-auto !min-h-[44px] !py-0 text-[15px]"
            value={fields.text(`wicks:${key}`)}
            onChange={(event) => fields.set(`wicks:${key}`, event.target.value)}
          >
            {[1, 2, 3].map((n) => (
              <option key={n} value={n}>
                {n} each
              </option>
            ))}
          </select>
        ) : null}
      </div>
      {container.container === "mold" ? (
        <div className="max-w-[220px]">
          <DeferredField label="Candle height" of={name} unit={units.length ?? "mm"} {...fields.bind(`height:${key}`)} inputMode="decimal" />
        </div>
      ) : null}
      <div className="mt-2 max-w-[460px]">
        <EmbedFields of={name} value={laidIn} onValue={(value) => fields.set(`embeds:${key}`, JSON.stringify(value))} embeds={embeds} onLook={onLook} />
      </div>
      {pots.length > 0 ? (
        <label className="mt-1 flex flex-wrap items-center gap-2">
          Poured from
          <select
            aria-label={`Pot of ${name}`}
            className="entry !w-auto !min-h-[44px] !py-0 text-[15px]"
            value={fields.text(`pot:${key}`)}
            onChange={(event) => fields.set(`pot:${key}`, event.target.value)}
          >
            {pots.map((pot, index) => (
              <option key={index} value={index}>
                pot {index + 1}: {pot}
              </option>
            ))}
          </select>
        </label>
      ) : null}
    </details>
  );
}

/** Everything that can be filled, drawn to one scale, with its count, its wick and how far it is filled. */
export function ContainerCounts({
  lines,
  fillOf,
  picked,
  wicks,
  embeds,
  fields,
  scale,
  onLook,
  onEnter,
  pots = [],
}: {
  lines: readonly Line[];
  /** The formulas of the pots, where one melt is divided and each line says which it is poured from. */
  pots?: readonly string[];
  /** What goes into one piece, as it is worked out, by the line's key. */
  fillOf: (key: string) => number;
  picked: ReadonlySet<string>;
  wicks: Shelf["wicks"];
  embeds: Shelf["embeds"];
  fields: LineFields;
  scale: number;
  onLook: () => void;
  /** Enter in a count goes on to the amounts. */
  onEnter: () => void;
}) {
  return (
    <ul
      onKeyDown={(event) => {
        if (event.key !== "Enter" || !(event.target instanceof HTMLInputElement) || !event.target.name.startsWith("count:")) return;
        // Otherwise the same press would go on to the button that gets the focus, and start the batch.
        event.preventDefault();
        onEnter();
      }}
    >
      {lines.map((line, index) => (
        <li
          key={line.key}
          data-next-step={picked.size === 0 && index === 0 ? true : undefined}
          className="grid grid-cols-[100px_minmax(0,1fr)_84px] items-end gap-3 border-b border-line py-2 sm:grid-cols-[120px_minmax(0,1fr)_96px]"
        >
          <LineHead line={line} fillMg={fillOf(line.key)} scale={scale} />
          <DeferredField
            label="Count"
            of={line.product?.name ?? line.container.name}
            {...fields.bind(`count:${line.key}`)}
            inputMode="numeric"
            placeholder="0"
          />
          {picked.has(line.key) ? <LineChoices line={line} wicks={wicks} embeds={embeds} fields={fields} onLook={onLook} pots={pots} /> : null}
        </li>
      ))}
    </ul>
  );
}
