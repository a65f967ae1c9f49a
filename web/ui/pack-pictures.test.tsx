import { fitInBox } from "@hearth/core";
import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { BoxPlan } from "./box-plan";
import { HazardSign } from "./hazard-sign";
import { StockStrip } from "./stock-strip";

const numbers = (markup: string, attribute: string) => [...markup.matchAll(new RegExp(` ${attribute}="([-\\d.]+)"`, "g"))].map(([, value]) => Number(value));

describe("a box from above", () => {
  const box = { lengthUm: 120_000, widthUm: 81_000, heightUm: 19_000 };
  const body = (count: number, widthUm = 39_000) => ({ name: "tealight", widthUm, heightUm: 17_000, count });
  const draw = (count: number, widthUm?: number) => {
    const fit = fitInBox([body(count, widthUm)], box);
    if (!fit) throw new Error("nothing was packed");
    return { fit, markup: renderToStaticMarkup(<BoxPlan box={box} fit={fit} says="six" />) };
  };

  it("draws each body as large as it is, in its place, with what is over on both sides alike", () => {
    const { markup } = draw(6);
    const radii = numbers(markup, "r");
    expect(radii).toEqual(Array(6).fill(19_500));
    const xs = numbers(markup, "cx");
    // 3 mm are over along the length: one and a half on each side.
    expect(Math.min(...xs) - 19_500).toBe(1_500);
    expect(120_000 - Math.max(...xs) - 19_500).toBe(1_500);
    expect(markup).toContain('aria-label="six"');
  });

  it("shows what does not go in reaching over its wall, within the picture", () => {
    const { fit, markup } = draw(6, 46_000);
    expect(fit.verdict).toBe("too small");
    const [, left, top, width, height] = /viewBox="([-\d.]+) ([-\d.]+) ([\d.]+) ([\d.]+)"/.exec(markup)?.slice(0).map(Number) ?? [];
    expect(width).toBeGreaterThan(120_000);
    const reach = (attribute: string) => Math.max(...numbers(markup, attribute)) + 23_000;
    expect(reach("cx") > 120_000 || reach("cy") > 81_000).toBe(true);
    expect(reach("cx")).toBeLessThanOrEqual((left ?? 0) + (width ?? 0));
    expect(reach("cy")).toBeLessThanOrEqual((top ?? 0) + (height ?? 0));
    expect(markup).toContain("fill-hot-fill");
  });
});

describe("the strip of finished goods", () => {
  const strip = (over: object) => renderToStaticMarkup(<StockStrip name="Rain" packed={4} loose={6} planned={10} asked={0} most={40} {...over} />);
  const bars = (markup: string) =>
    [...markup.matchAll(/<rect x="([\d.]+)" y="\d+" width="([\d.]+)"[^>]*class="([^"]*)"/g)].map(([, x, width, cls]) => [Number(x), Number(width), cls]);

  it("is to the scale of all beside it: packed, loose, planned, one after another", () => {
    expect(bars(strip({})).slice(1)).toEqual([
      [0, 40, "fill-ink"],
      [40, 60, "fill-soft"],
      [100, 100, expect.stringContaining("dasharray")],
    ]);
  });

  it("marks what is ordered, and what of it lacks; and says all of it to somebody who cannot see it", () => {
    const markup = strip({ asked: 15 });
    expect(bars(markup).at(-1)).toEqual([100, 50, "fill-hot"]);
    expect(numbers(markup, "x1")).toEqual([150]);
    expect(markup).toContain('aria-label="Rain: 4 packed, 6 to pack, 10 planned, 15 ordered"');
    // What is there is enough: nothing lacks.
    expect(bars(strip({ asked: 8 })).some(([, , cls]) => cls === "fill-hot")).toBe(false);
  });
});

describe("a hazard sign", () => {
  it("stands on its tip in a red frame, says its name, and is nothing where there is none such", () => {
    const markup = renderToStaticMarkup(<HazardSign code="GHS07" />);
    expect(markup).toContain('aria-label="GHS07: exclamation mark"');
    expect(markup).toMatch(/<path d="M50 3 97 50 50 97 3 50Z"[^>]*stroke="#d00000"/);
    expect(renderToStaticMarkup(<HazardSign code="GHS99" />)).toBe("");
  });
});
