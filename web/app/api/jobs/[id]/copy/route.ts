import { copyJob } from "@/server/jobs";
import { bodyReader, respond } from "@/server/respond";

const schema = { type: "object", properties: { key: { type: "integer" } }, additionalProperties: false };
const body = bodyReader<{ key?: number }>(schema, 4096);

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  respond(request, async () => copyJob((await params).id, (await body(request)).key));
