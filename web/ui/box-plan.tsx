import type { BoxFit, BoxInner } from "@hearth/core";

/** A box from above, to scale, with what stands in it: round jars in their places; what does not go in reaches over its wall. */
export function BoxPlan({ box, fit, says, width = 260 }: { box: BoxInner; fit: BoxFit; says: string; width?: number }) {
  const over = Math.max(0, ...fit.stood.map((item) => Math.max(item.xUm + item.widthUm - box.lengthUm, item.yUm + item.widthUm - box.widthUm)));
  const whole = box.lengthUm + 2 * over + 8_000;
  const deep = box.widthUm + 2 * over + 8_000;
  const from = -(over + 4_000);
  const right = Math.max(0, ...fit.stood.map((item) => item.xUm + item.widthUm));
  const bottom = Math.max(0, ...fit.stood.map((item) => item.yUm + item.widthUm));
  const shift = { x: Math.max(0, box.lengthUm - right) / 2, y: Math.max(0, box.widthUm - bottom) / 2 };
  return (
    <svg viewBox={`${from} ${from} ${whole} ${deep}`} role="img" aria-label={says} style={{ width, height: (width * deep) / whole, maxWidth: "100%" }}>
      <rect x={0} y={0} width={box.lengthUm} height={box.widthUm} className="fill-sheet stroke-ink" strokeWidth={2} vectorEffect="non-scaling-stroke" />
      {/* Pushed to the middle: what is left over stands on both sides alike. */}
      {fit.stood.map((item, index) => (
        <circle
          key={`${item.name} ${index}`}
          cx={shift.x + item.xUm + item.widthUm / 2}
          cy={shift.y + item.yUm + item.widthUm / 2}
          r={item.widthUm / 2}
          className={fit.verdict === "too small" ? "fill-hot-fill stroke-hot" : "fill-paper stroke-ink"}
          strokeWidth={1.4}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}
