import Ajv, { type JSONSchemaType } from "ajv";
import { Problem } from "@oaken/core/problem";

const STATUS: Record<string, number> = { stale: 409, "no-job": 404, "no-asset": 404, "no-revision": 404, "disk-full": 507, "cannot-write": 507, "file-too-large": 413, "picture-too-large": 413 };

/** Runs a handler; problems become a status and one sentence, anything else a plain 500 without insides. */
export async function respond(work: () => Promise<Response | object>): Promise<Response> {
  try {
    const result = await work();
    return result instanceof Response ? result : Response.json(result);
  } catch (e) {
    if (e instanceof Problem) return Response.json({ code: e.code, message: e.message }, { status: STATUS[e.code] ?? 400 });
    console.error(e);
    return Response.json({ code: "fault", message: "Something went wrong in Oaken Bit itself. Nothing saved is lost; try again." }, { status: 500 });
  }
}

const ajv = new Ajv();

/** A checked JSON body. @throws Problem `bad-request` */
export function bodyReader<T>(schema: JSONSchemaType<T> | object, mostBytes: number): (request: Request) => Promise<T> {
  const check = ajv.compile(schema as object);
  return async (request) => {
    const bytes = await readBytes(request, mostBytes);
    let body: unknown;
    try {
      body = JSON.parse(Buffer.from(bytes).toString("utf8"));
    } catch {
      throw new Problem("bad-request", "The request is not readable JSON.");
    }
    if (!check(body)) throw new Problem("bad-request", `The request is not as expected: ${check.errors![0].instancePath || "it"} ${check.errors![0].message}.`);
    return body as T;
  };
}

/** A body of at most `most` bytes, counted while it arrives. @throws Problem `file-too-large` */
export async function readBytes(request: Request, most: number): Promise<Uint8Array> {
  const tooLarge = new Problem("file-too-large", `That is more than the ${Math.round(most / 2 ** 20)} MB taken in here. Save it smaller and try again.`);
  if (Number(request.headers.get("content-length") ?? 0) > most) throw tooLarge;
  if (!request.body) return new Uint8Array(0);
  const chunks: Uint8Array[] = [];
  let total = 0;
  for await (const chunk of request.body as unknown as AsyncIterable<Uint8Array>) {
    total += chunk.length;
    if (total > most) throw tooLarge;
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}
