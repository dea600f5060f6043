import Ajv, { type JSONSchemaType } from "ajv";
import { Problem } from "@oaken/core/problem";
import { storageProblem } from "./files.ts";
import { refusal } from "./gate.ts";

const STATUS: Record<string, number> = {
  stale: 409,
  locked: 403,
  "unknown-part": 404,
  "no-job": 404,
  "no-asset": 404,
  "no-revision": 404,
  "file-too-large": 413,
  "picture-too-large": 413,
  "disk-full": 507,
  "cannot-write": 507,
  "no-data-folder": 507,
  "newer-data": 507,
  "damaged-data": 507,
  "lost-data": 507,
  "busy-data": 503,
};

/** Largest document of a job, bytes. */
export const MOST_DOCUMENT = 4 << 20;

/**
 * Runs a handler for a request that the gate lets in; problems become a status and one sentence, anything else a plain
 * 500 without insides.
 */
export async function respond(request: Request, work: () => Promise<Response | object>): Promise<Response> {
  try {
    const refused = refusal(request.method, request.headers);
    if (refused) return Response.json({ code: "refused", message: refused }, { status: 403 });
    const result = await work();
    return result instanceof Response ? result : Response.json(result);
  } catch (error) {
    const e = storageProblem(error);
    if (e instanceof Problem)
      return Response.json({ code: e.code, message: e.message }, { status: STATUS[e.code] ?? 400 });
    console.error(e);
    const message = "Something went wrong in Oaken Bit itself, and this was not done. Try again.";
    return Response.json({ code: "fault", message }, { status: 500 });
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
    if (!check(body))
      throw new Problem(
        "bad-request",
        `The request is not as expected: ${check.errors![0].instancePath || "it"} ${check.errors![0].message}.`,
      );
    return body as T;
  };
}

/** A body of at most `most` bytes. @throws Problem `file-too-large` */
export async function readBytes(request: Request, most: number): Promise<Uint8Array> {
  const chunks: Uint8Array[] = [];
  for await (const chunk of limited(request, most)) chunks.push(chunk);
  return Buffer.concat(chunks);
}

/** A body as it arrives, counted. @throws Problem `file-too-large` as soon as there is, or is said to be, more */
export async function* limited(request: Request, most: number): AsyncGenerator<Uint8Array> {
  const size = most < 2 ** 20 ? `${Math.round(most / 2 ** 10)} kB` : `${Math.round(most / 2 ** 20)} MB`;
  const tooLarge = new Problem(
    "file-too-large",
    `That is more than the ${size} taken in here. Save it smaller and try again.`,
  );
  if (Number(request.headers.get("content-length") ?? 0) > most) throw tooLarge;
  if (!request.body) return;
  let total = 0;
  for await (const chunk of request.body as unknown as AsyncIterable<Uint8Array>) {
    total += chunk.length;
    if (total > most) throw tooLarge;
    yield chunk;
  }
}
