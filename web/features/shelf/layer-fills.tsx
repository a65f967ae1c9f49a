"use client";

import { type Inner, layerFills, type Milligrams } from "@hearth/core";
import { useState } from "react";
import { useUnits } from "@/ui/units";

/** What half a fill weighs, and each layer of equal height. */
export function LayerFills({ inner, fillMg }: { inner: Inner; fillMg: Milligrams }) {
  const units = useUnits();
  const [layers, setLayers] = useState(3);
  const fills = layerFills(inner, fillMg, layers);
  return (
    <section className="sheet" aria-label="Half and layered fills">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h2>Half and layered fills</h2>
        <label className="text-[15px] font-semibold">
          Layers{" "}
          <select className="entry !w-[80px]" value={layers} onChange={(event) => setLayers(Number(event.target.value))}>
            {[2, 3, 4, 5, 6].map((n) => (
              <option key={n}>{n}</option>
            ))}
          </select>
        </label>
      </div>
      <p className="mt-2">
        Half, to see how the lower half burns: <span className="figure text-[26px]">{units.about(fillMg / 2)}</span>
      </p>
      <ol className="mt-1" reversed>
        {[...fills].reverse().map((mg, index) => (
          <li key={fills.length - index} className="flex justify-between border-t border-line py-1">
            <span>
              layer {fills.length - index}
              {index === 0 ? ", the top" : index === fills.length - 1 ? ", poured first" : ""}
            </span>
            <span className="figure text-[22px]">{units.about(mg)}</span>
          </li>
        ))}
      </ol>
      <p className="mt-1 text-[14px] text-soft">
        Layers of equal height. Wait three to five hours between them, until the last one is cold. A half fill never counts as a full test.
      </p>
    </section>
  );
}
