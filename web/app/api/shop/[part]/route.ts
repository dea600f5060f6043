import { partNamed } from "@oaken/core/shop/parts";
import { bodyReader, respond } from "@/server/respond";
import { type EntryChange, listEntries, makeFirst, saveEntry } from "@/server/shop";

const schema = {
  type: "object",
  required: ["entry", "base"],
  properties: {
    entry: { type: "object" },
    retired: { type: "boolean" },
    base: { type: "integer", minimum: 0 },
  },
  additionalProperties: false,
};
/** An entry is a few figures and a note, bytes. */
const MOST_ENTRY = 64 << 10;
const body = bodyReader<EntryChange>(schema, MOST_ENTRY);

const first = bodyReader<{ first: string }>(
  {
    type: "object",
    required: ["first"],
    properties: { first: { type: "string", maxLength: 60 } },
    additionalProperties: false,
  },
  MOST_ENTRY,
);

type Context = { params: Promise<{ part: string }> };

export const GET = (request: Request, { params }: Context) =>
  respond(request, async () => listEntries(partNamed((await params).part)));
export const PUT = (request: Request, { params }: Context) =>
  respond(request, async () => saveEntry((await params).part, await body(request)));
/** Puts an entry at the head of its part. */
export const PATCH = (request: Request, { params }: Context) =>
  respond(request, async () => makeFirst((await params).part, (await first(request)).first));
