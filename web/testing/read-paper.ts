import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import jsQR from "jsqr";
import { PNG } from "pngjs";
import { expect } from "vitest";

/** Text and page sizes of a PDF, and the codes on its pages, as Debian's poppler tools and a decoder that is not ours read them. */
export async function readPaper(answer: Response, withCode = false, dpi = 110) {
  expect(answer.status, await answer.clone().text()).toBe(200);
  const folder = mkdtempSync(join(tmpdir(), "paper-"));
  try {
    const file = join(folder, "paper.pdf");
    writeFileSync(file, Buffer.from(await answer.arrayBuffer()));
    const text = execFileSync("pdftotext", ["-layout", file, "-"], { encoding: "utf8", maxBuffer: 64e6 });
    const info = execFileSync("pdfinfo", [file], { encoding: "utf8", maxBuffer: 64e6 });
    let code: string | undefined;
    if (withCode) {
      execFileSync("pdftoppm", ["-r", String(dpi), "-f", "1", "-l", "1", "-png", "-singlefile", file, join(folder, "page")]);
      const { data, width, height } = PNG.sync.read(readFileSync(join(folder, "page.png")));
      code = jsQR(new Uint8ClampedArray(data), width, height)?.data;
    }
    // Every word with its box, in points from the top left corner of its page.
    const boxes = execFileSync("pdftotext", ["-bbox", file, "-"], { encoding: "utf8", maxBuffer: 64e6 });
    const words = boxes
      .split("<page")
      .slice(1)
      .flatMap((part, page) =>
        [...part.matchAll(/<word xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">([^<]*)</g)].map(([, x, y, right, bottom, word]) => ({
          page,
          word,
          x: Number(x),
          y: Number(y),
          right: Number(right),
          bottom: Number(bottom),
        })),
      );
    const fonts = execFileSync("pdffonts", [file], { encoding: "utf8", maxBuffer: 64e6 });
    return {
      text,
      pages: Number(/Pages:\s+(\d+)/.exec(info)?.[1]),
      size: /Page size:\s+([\d.]+) x ([\d.]+)/.exec(info)?.slice(1).map(Number),
      code,
      fonts,
      words,
    };
  } finally {
    rmSync(folder, { recursive: true });
  }
}
