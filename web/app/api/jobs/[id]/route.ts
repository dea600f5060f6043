import { openJob, patchJob, saveJob } from "@/server/jobs";
import { bodyReader, respond } from "@/server/respond";

interface Save {
  base: number;
  document: object;
  summary: string;
}
const save = bodyReader<Save>({ type: "object", required: ["base", "document", "summary"], properties: { base: { type: "integer" }, document: { type: "object" }, summary: { type: "string", maxLength: 500 } }, additionalProperties: false }, 4 << 20);
const patch = bodyReader<{ archived?: boolean; written?: number }>({ type: "object", properties: { archived: { type: "boolean" }, written: { type: "integer" } }, additionalProperties: false }, 4096);

type Context = { params: Promise<{ id: string }> };

export const GET = (_: Request, { params }: Context) => respond(async () => openJob((await params).id));
export const PUT = (request: Request, { params }: Context) =>
  respond(async () => {
    const { base, document, summary } = await save(request);
    return saveJob((await params).id, base, document, summary);
  });
export const PATCH = (request: Request, { params }: Context) => respond(async () => patchJob((await params).id, await patch(request)));
