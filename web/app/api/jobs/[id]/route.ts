import { openJob, patchJob } from "@/server/jobs";
import { bodyReader, MOST_DOCUMENT, respond } from "@/server/respond";
import { saveJob } from "@/server/save";

interface Save {
  base: number;
  document: object;
  summary: string;
}
const saveSchema = {
  type: "object",
  required: ["base", "document", "summary"],
  properties: {
    base: { type: "integer", minimum: 0 },
    document: { type: "object" },
    summary: { type: "string", maxLength: 500 },
  },
  additionalProperties: false,
};
const patchSchema = {
  type: "object",
  properties: { archived: { type: "boolean" }, written: { type: "integer", minimum: 1 } },
  additionalProperties: false,
};
const save = bodyReader<Save>(saveSchema, MOST_DOCUMENT);
const patch = bodyReader<{ archived?: boolean; written?: number }>(patchSchema, 4096);

type Context = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Context) => respond(request, async () => openJob((await params).id));
export const PUT = (request: Request, { params }: Context) =>
  respond(request, async () => {
    const { base, document, summary } = await save(request);
    return saveJob((await params).id, base, document, summary);
  });
export const PATCH = (request: Request, { params }: Context) =>
  respond(request, async () => patchJob((await params).id, await patch(request)));
