import { partNamed } from "@oaken/core/shop/parts";
import { writeCsv, writeJson } from "@oaken/core/shop/table";
import { readBytes, respond } from "@/server/respond";
import { importEntries, listEntries } from "@/server/shop";

/** Largest file of entries that is taken in, bytes. */
const MOST_FILE = 16 << 20;

type Context = { params: Promise<{ part: string }> };

/** The entries that are offered as a file: `?as=csv` for a table, else JSON. */
export const GET = (request: Request, { params }: Context) =>
  respond(request, async () => {
    const part = partNamed((await params).part);
    const entries = (await listEntries(part)).filter((k) => !k.retired).map((k) => k.entry);
    const isTable = new URL(request.url).searchParams.get("as") === "csv";
    return new Response(isTable ? writeCsv(part, entries) : writeJson(part, entries), {
      headers: {
        "Content-Type": isTable ? "text/csv; charset=utf-8" : "application/json",
        "Content-Disposition": `attachment; filename="${part.id}.${isTable ? "csv" : "json"}"`,
      },
    });
  });
export const POST = (request: Request, { params }: Context) =>
  respond(request, async () => {
    const bytes = await readBytes(request, MOST_FILE);
    return importEntries((await params).part, Buffer.from(bytes).toString("utf8"));
  });
