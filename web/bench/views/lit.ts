import { cardOf } from "@oaken/core/height/lit";
import type { DrawnSurface } from "../../compute/messages.ts";

/** The picture that a kept height goes by, as PNG. */
export function cardPng(surface: DrawnSurface): Promise<Blob> {
  const { width, height, data } = cardOf(surface);
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext("2d")!.putImageData(new ImageData(data, width, height), 0, 0);
  return canvas.convertToBlob({ type: "image/png" });
}
