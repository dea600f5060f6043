import { keepThumb, thumb } from "@/server/jobs";
import { readBytes, respond } from "@/server/respond";

/** Largest picture of a proof, bytes. */
const MOST = 2 << 20;

type Context = { params: Promise<{ id: string }> };

/** A job without a proof yet has no picture: that is no fault, so it is answered with nothing (204). */
export const GET = (request: Request, { params }: Context) =>
  respond(request, async () => {
    const png = await thumb((await params).id);
    if (!png) return new Response(null, { status: 204 });
    return new Response(png as BodyInit, { headers: { "Content-Type": "image/png", "Cache-Control": "no-cache" } });
  });

export const PUT = (request: Request, { params }: Context) =>
  respond(request, async () => {
    const said = new URL(request.url).searchParams;
    const number = (name: string) => Number(said.get(name) ?? 0);
    await keepThumb((await params).id, await readBytes(request, MOST), number("seconds"), number("stops"));
    return {};
  });
