import sharp from "sharp";
import { raster } from "@/server/assets";
import { respond } from "@/server/respond";

/** Longest side of the picture laid on the stock, pixels: enough for a screen, light on the GPU. */
const SIDE = 1600;

/** The picture as the browser shows it: upright, sRGB, at most {@link SIDE} pixels. */
export const GET = (request: Request, { params }: { params: Promise<{ sha: string }> }) =>
  respond(request, async () => {
    const side = Math.max(16, Math.min(SIDE, Number(new URL(request.url).searchParams.get("side")) || SIDE));
    const r = await raster((await params).sha);
    const wide = r.data instanceof Uint16Array;
    const image = sharp(r.data, { raw: { width: r.width, height: r.height, channels: 4 } });
    const png = await (wide ? image.toColourspace("srgb") : image)
      .resize(side, side, { fit: "inside", withoutEnlargement: true })
      .png()
      .toBuffer();
    const headers = { "Content-Type": "image/png", "Cache-Control": "private, max-age=3600, immutable" };
    return new Response(png as BodyInit, { headers });
  });
