"use client";

import { Field, type useFields } from "@/forms/fields";
import type { Shelf } from "@/server/shelf";
import { JarSection } from "@/ui/jar-section";
import { useUnits } from "@/ui/units";
import type { Body } from "./model";

const PARTS = ["full", "half fill", "layer 1 of 2", "layer 2 of 2", "layer 1 of 3", "layer 2 of 3", "layer 3 of 3"];

/** Everything that can be filled, drawn to one scale, with its count, its wick and how far it is filled. */
export function Bodies({
  bodies,
  fillOf,
  picked,
  wicks,
  fields,
  scale,
}: {
  bodies: Body[];
  /** What goes into one piece, as it is worked out. */
  fillOf: (id: string) => number;
  picked: ReadonlySet<string>;
  wicks: Shelf["wicks"];
  fields: Pick<ReturnType<typeof useFields>, "bind" | "text" | "set">;
  scale: number;
}) {
  const units = useUnits();
  return (
    <ul>
      {bodies.map((body) => {
        const chosen = picked.has(body.id);
        return (
          <li
            key={body.id}
            className="grid grid-cols-[100px_minmax(0,1fr)_84px] items-end gap-3 border-b border-line py-2 sm:grid-cols-[120px_minmax(0,1fr)_96px]"
          >
            <JarSection {...body} wicks={null} headspaceUm={null} fillMg={fillOf(body.id)} scale={scale} />
            <div className="min-w-0 pb-2">
              <div className="font-bold">
                {body.name}
                {body.state === "tester" ? <span className="font-normal text-safety"> ⚠ tester</span> : null}
                {body.body === "mould" ? (
                  <span className="font-normal text-soft">
                    {" "}
                    {body.state}
                    {(body.cavities ?? 1) > 1 ? `, ${body.cavities} at a time` : ""}
                  </span>
                ) : null}
              </div>
              <span className="figure text-[20px]">{units.g(fillOf(body.id))}</span> <span className="text-soft">each</span>
            </div>
            <Field label="Count" {...fields.bind(`count:${body.id}`)} inputMode="numeric" placeholder="0" />
            {chosen ? (
              <div className="col-span-full -mt-2 flex flex-wrap justify-end gap-2">
                {body.body === "vessel" ? (
                  <select
                    aria-label={`How far ${body.name} is filled`}
                    className="entry !w-auto !min-h-[36px] !py-0 text-[15px]"
                    value={fields.text(`part:${body.id}`)}
                    onChange={(event) => fields.set(`part:${body.id}`, event.target.value)}
                  >
                    {PARTS.map((one) => (
                      <option key={one}>{one}</option>
                    ))}
                  </select>
                ) : null}
                <select
                  aria-label={`Wick of ${body.name}`}
                  className="entry !w-auto max-w-[210px] !min-h-[36px] !py-0 text-[15px]"
                  value={fields.text(`wick:${body.id}`)}
                  onChange={(event) => fields.set(`wick:${body.id}`, event.target.value)}
                >
                  <option value="">no wick</option>
                  {wicks.map((one) => (
                    <option key={one.id} value={one.id}>
                      {one.name}
                    </option>
                  ))}
                </select>
                {fields.text(`wick:${body.id}`) ? (
                  <select
                    aria-label={`Wicks in one ${body.name}`}
                    className="entry !w-auto !min-h-[36px] !py-0 text-[15px]"
                    value={fields.text(`wicks:${body.id}`)}
                    onChange={(event) => fields.set(`wicks:${body.id}`, event.target.value)}
                  >
                    {[1, 2, 3].map((n) => (
                      <option key={n} value={n}>
                        {n} each
                      </option>
                    ))}
                  </select>
                ) : null}
              </div>
            ) : null}
          </li>
        );
      })}
    </ul>
  );
}
