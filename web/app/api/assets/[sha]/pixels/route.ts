import { raster } from "@/server/assets";
import { respond } from "@/server/respond";

/** Bytes given to the network at a time: one copy of a whole picture would hold up every other route. */
const PIECE = 1 << 20;

/** Decoded pixels for the workers: width, height, bytes a sample as 32-bit numbers, then RGBA. */
export const GET = (request: Request, { params }: { params: Promise<{ sha: string }> }) =>
  respond(request, async () => {
    const r = await raster((await params).sha);
    const head = new Uint8Array(Uint32Array.of(r.width, r.height, r.data.BYTES_PER_ELEMENT).buffer);
    const data = new Uint8Array(r.data.buffer, r.data.byteOffset, r.data.byteLength);
    let at = 0;
    const body = new ReadableStream({
      start: (out) => out.enqueue(head),
      pull(out) {
        out.enqueue(data.subarray(at, at + PIECE));
        at += PIECE;
        if (at >= data.length) out.close();
      },
    });
    return new Response(body, {
      headers: {
        "Content-Type": "application/octet-stream",
        "Content-Length": String(head.length + data.length),
        "Cache-Control": "private, max-age=3600, immutable",
      },
    });
  });
