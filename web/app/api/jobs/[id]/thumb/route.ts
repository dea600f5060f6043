import { Problem } from "@oaken/core/problem";
import { keepThumb, thumb } from "@/server/jobs";
import { readBytes, respond } from "@/server/respond";

type Context = { params: Promise<{ id: string }> };

export const GET = (_: Request, { params }: Context) =>
  respond(async () => {
    const png = await thumb((await params).id);
    return png ? new Response(png as BodyInit, { headers: { "Content-Type": "image/png", "Cache-Control": "no-cache" } }) : new Response(null, { status: 404 });
  });

export const PUT = (request: Request, { params }: Context) =>
  respond(async () => {
    const png = await readBytes(request, 2 << 20);
    if (png[0] !== 0x89 || png[1] !== 0x50) throw new Problem("bad-request", "The proof's picture must be a PNG.");
    const seconds = Number(new URL(request.url).searchParams.get("seconds"));
    await keepThumb((await params).id, png, Number.isFinite(seconds) ? seconds : 0);
    return {};
  });
