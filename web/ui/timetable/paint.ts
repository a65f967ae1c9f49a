import type { Ink, Picture, Shape } from "./shapes";

/** Drawings larger than this, in px of the device, are drawn less finely: some phones show none that are larger. */
const MAX_PIXELS = 16_000_000;

/** Returns how fine a drawing can be: px of the device for each px. */
export const finenessOf = (picture: Pick<Picture, "width" | "height">, count: number): number =>
  Math.min(count, Math.sqrt(MAX_PIXELS / Math.max(1, picture.width * picture.height)));

type Colors = Record<Exclude<Ink, "stripes">, string>;

interface Look {
  colors: Colors;
  text: string;
  figure: string;
}

/** The tokens as they are where the drawing stands. */
function lookAt(element: Element): Look {
  const style = getComputedStyle(element);
  const color = (name: string) => style.getPropertyValue(`--color-${name}`).trim();
  return {
    colors: {
      ink: color("ink"),
      soft: color("soft"),
      line: color("line"),
      wax: color("wax"),
      sheet: color("sheet"),
      action: color("action"),
      hot: color("hot"),
    },
    text: style.getPropertyValue("--font-text").trim() || "sans-serif",
    figure: style.getPropertyValue("--font-figure").trim() || "sans-serif",
  };
}

/** Stripes of the heat, in the same size on every screen. */
function stripes(context: CanvasRenderingContext2D, { sheet, hot }: Colors): CanvasPattern | string {
  const tile = document.createElement("canvas");
  tile.width = 28;
  tile.height = 28;
  const on = tile.getContext("2d");
  if (!on) return hot;
  on.fillStyle = sheet;
  on.fillRect(0, 0, 28, 28);
  on.fillStyle = hot;
  on.fillRect(0, 0, 14, 28);
  const pattern = context.createPattern(tile, "repeat");
  pattern?.setTransform(new DOMMatrix().rotate(45).scale(0.25));
  return pattern ?? hot;
}

function put(context: CanvasRenderingContext2D, shape: Shape, look: Look, fillOf: (ink: Ink) => string | CanvasPattern): void {
  context.globalAlpha = shape.alpha ?? 1;
  if (shape.is === "box") {
    context.fillStyle = fillOf(shape.fill);
    context.fillRect(shape.x, shape.y, shape.width, shape.height);
    if (!shape.edge) return;
    context.strokeStyle = fillOf(shape.edge);
    context.lineWidth = shape.thick ?? 1;
    context.strokeRect(shape.x, shape.y, shape.width, shape.height);
  } else if (shape.is === "line") {
    context.strokeStyle = fillOf(shape.ink);
    context.lineWidth = shape.thick;
    context.setLineDash(shape.dashed ? [3, 3] : []);
    context.beginPath();
    for (const [index, [x, y]] of shape.points.entries()) {
      if (index === 0) context.moveTo(x, y);
      else context.lineTo(x, y);
    }
    context.stroke();
    context.setLineDash([]);
  } else {
    const { size, bold, figure } = shape;
    context.font = figure ? `${bold ? 750 : 650} ${size}px ${look.figure}` : `${bold ? 700 : 400} ${size}px ${look.text}`;
    context.fontStretch = figure ? "condensed" : "normal";
    context.textAlign = shape.from === "middle" ? "center" : shape.from;
    context.textBaseline = "middle";
    context.fillStyle = fillOf(shape.ink);
    context.fillText(shape.says, shape.x, shape.y + 1);
  }
}

/** So long may one part of a drawing take, in ms. */
const PART_MS = 6;

/** Draws a picture beside the one that is shown and puts it there when it is whole; stops after each shape, to go on when asked. */
function* painting(canvas: HTMLCanvasElement, picture: Picture, count: number): Generator<undefined> {
  const fine = finenessOf(picture, count);
  const spare = document.createElement("canvas");
  spare.width = Math.round(picture.width * fine);
  spare.height = Math.round(picture.height * fine);
  const context = spare.getContext("2d");
  const shown = canvas.getContext("2d");
  if (!context || !shown) return;
  context.scale(fine, fine);
  const look = lookAt(canvas);
  const heat = stripes(context, look.colors);
  for (const shape of picture.shapes) {
    put(context, shape, look, (ink) => (ink === "stripes" ? heat : look.colors[ink]));
    yield;
  }
  // To set a size takes everything away, even where it stays the same.
  if (canvas.width !== spare.width) canvas.width = spare.width;
  if (canvas.height !== spare.height) canvas.height = spare.height;
  shown.clearRect(0, 0, canvas.width, canvas.height);
  if (canvas.width * canvas.height > 0) shown.drawImage(spare, 0, 0);
}

/** Draws a picture at once, as fine as is wanted: px of the device for each px. */
export function paint(canvas: HTMLCanvasElement, picture: Picture, count: number): void {
  for (const _ of painting(canvas, picture, count));
}

/** Draws a picture in parts, a few ms with each frame, since text that was never drawn before takes long. Returns a function that stops it. */
export function paintSoon(canvas: HTMLCanvasElement, picture: Picture, count: number): () => void {
  const rest = painting(canvas, picture, count);
  let frame = requestAnimationFrame(function part() {
    const until = performance.now() + PART_MS;
    while (performance.now() < until) if (rest.next().done) return;
    frame = requestAnimationFrame(part);
  });
  return () => cancelAnimationFrame(frame);
}
