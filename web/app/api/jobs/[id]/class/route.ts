import type { StartRules } from "@oaken/core/job/document";
import { OPEN } from "@oaken/core/job/lock";
import { addPeople, openClass, setStart } from "@/server/class";
import { bodyReader, respond } from "@/server/respond";

const startSchema = {
  type: "object",
  required: ["start"],
  additionalProperties: false,
  properties: {
    start: {
      type: ["object", "null"],
      additionalProperties: false,
      properties: {
        open: { type: "array", uniqueItems: true, items: { enum: Object.keys(OPEN) } },
        least: { type: "number", exclusiveMinimum: 0, maximum: 10000 },
        most: { type: "number", exclusiveMinimum: 0, maximum: 10000 },
      },
    },
  },
};
const peopleSchema = {
  type: "object",
  required: ["people", "class"],
  additionalProperties: false,
  properties: { people: { type: "string", maxLength: 100_000 }, class: { type: "string", maxLength: 100 } },
};
const startBody = bodyReader<{ start: Partial<StartRules> | null }>(startSchema, 4096);
const peopleBody = bodyReader<{ people: string; class: string }>(peopleSchema, 1 << 20);

type Context = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Context) =>
  respond(request, async () => openClass((await params).id));
export const PUT = (request: Request, { params }: Context) =>
  respond(request, async () => setStart((await params).id, (await startBody(request)).start));
export const POST = (request: Request, { params }: Context) =>
  respond(request, async () => {
    const { people, class: name } = await peopleBody(request);
    return addPeople((await params).id, people, name);
  });
