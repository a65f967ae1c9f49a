import { MAX_PICTURE_BYTES } from "@hearth/core";

export type ShrinkAnswered = { ok: true; jpeg: Blob; width: number; height: number } | { ok: false };

/** The longer side of a kept picture, in px: enough to see frosting and wet spots. */
const LONGEST = 1_600;

/**
 * Draws a picture anew, smaller, as a JPEG. What a camera wrote beside it, like the place and the device, is not drawn and
 * so is gone.
 */
async function shrink(file: Blob): Promise<ShrinkAnswered> {
  const whole = await createImageBitmap(file, { imageOrientation: "from-image" });
  for (const longest of [LONGEST, 1_200, 800]) {
    const scale = Math.min(1, longest / Math.max(whole.width, whole.height));
    const [width, height] = [Math.max(1, Math.round(whole.width * scale)), Math.max(1, Math.round(whole.height * scale))];
    const canvas = new OffscreenCanvas(width, height);
    const context = canvas.getContext("2d");
    if (!context) return { ok: false };
    // A picture that is clear in places lies on white, as paper is.
    context.fillStyle = "#fff";
    context.fillRect(0, 0, width, height);
    context.drawImage(whole, 0, 0, width, height);
    for (const quality of [0.85, 0.7]) {
      const jpeg = await canvas.convertToBlob({ type: "image/jpeg", quality });
      if (jpeg.size <= MAX_PICTURE_BYTES) return { ok: true, jpeg, width, height };
    }
  }
  return { ok: false };
}

self.onmessage = async ({ data }: MessageEvent<Blob>) => {
  self.postMessage(await shrink(data).catch((): ShrinkAnswered => ({ ok: false })));
};
