import { copyJob } from "@/server/jobs";
import { bodyReader, respond } from "@/server/respond";

const body = bodyReader<{ key?: number }>({ type: "object", properties: { key: { type: "integer" } }, additionalProperties: false }, 4096);

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) => respond(async () => copyJob((await params).id, (await body(request)).key));
