"use client";

import { type ReactNode, useRef } from "react";
import { press } from "./variants";

/** A file that the browser keeps, of what is on the page. */
function keep(name: string, body: BlobPart, type: string): void {
  const url = URL.createObjectURL(new Blob([body], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** The picture by itself: colors and letters as they are on the page, so that it looks the same elsewhere. */
function standalone(svg: SVGSVGElement): { text: string; width: number; height: number } {
  const { width, height } = svg.getBoundingClientRect();
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const here = [svg, ...svg.querySelectorAll("*")];
  for (const [index, item] of [copy, ...copy.querySelectorAll("*")].entries()) {
    const style = getComputedStyle(here[index] as Element);
    for (const name of ["fill", "stroke", "font-family", "font-size", "font-weight"]) item.setAttribute(name, style.getPropertyValue(name));
    item.removeAttribute("class");
  }
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("width", String(Math.round(width)));
  copy.setAttribute("height", String(Math.round(height)));
  return { text: new XMLSerializer().serializeToString(copy), width, height };
}

const cell = (value: string | number | null) => {
  const text = value === null ? "" : String(value);
  // A text that a spreadsheet would take for a sum is kept a text.
  const safe = typeof value === "string" && /^[=+\-@]/.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
};

interface PictureProps {
  name: string;
  heads: readonly string[];
  rows: readonly (readonly (string | number | null)[])[];
  /** Only its numbers can be taken: there is no picture. */
  plain?: boolean;
  children: ReactNode;
}

/** A picture that can be taken along: as SVG, as PNG, and its numbers as CSV. */
export function Picture({ name, heads, rows, plain = false, children }: PictureProps) {
  const box = useRef<HTMLDivElement>(null);
  const svgOf = () => {
    const svg = box.current?.querySelector("svg");
    return svg ? standalone(svg as SVGSVGElement) : null;
  };
  const png = async () => {
    const drawn = svgOf();
    if (!drawn) return;
    const image = new Image();
    image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(drawn.text)}`;
    await image.decode();
    const canvas = document.createElement("canvas");
    canvas.width = Math.round(drawn.width * 2);
    canvas.height = Math.round(drawn.height * 2);
    const context = canvas.getContext("2d");
    if (!context) return;
    context.fillStyle = "#fff";
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.drawImage(image, 0, 0, canvas.width, canvas.height);
    canvas.toBlob((blob) => blob && keep(`${name}.png`, blob, "image/png"), "image/png");
  };
  return (
    <figure className="!tracking-normal">
      <div ref={box}>{children}</div>
      <figcaption className="unprinted mt-1 flex flex-wrap gap-2">
        <button
          type="button"
          className={press({ size: "small" })}
          onClick={() => keep(`${name}.csv`, [heads, ...rows].map((row) => row.map(cell).join(",")).join("\r\n"), "text/csv;charset=utf-8")}
        >
          Download CSV
        </button>
        {plain ? null : (
          <>
            {" "}
            <button
              type="button"
              className={press({ size: "small" })}
              onClick={() => {
                const drawn = svgOf();
                if (drawn) keep(`${name}.svg`, drawn.text, "image/svg+xml");
              }}
            >
              Download SVG
            </button>
            <button type="button" className={press({ size: "small" })} onClick={() => void png()}>
              Download PNG
            </button>
          </>
        )}
      </figcaption>
    </figure>
  );
}
