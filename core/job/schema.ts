import Ajv, { type ErrorObject } from "ajv";
import { OPEN } from "./lock.ts";
import { CUTS } from "../cuts/register.ts";
import { Problem } from "../problem.ts";
import { checkDialect } from "../output/gcode/dialect.ts";
import { DRAWING_STYLES } from "../output/dxf.ts";
import { type Field, settingsSchema } from "../settings/fields.ts";
import type { Shop } from "../shop/shop.ts";
import { cutterSchema, dialectSchema, machineSchema, materialSchema } from "../shop/schema.ts";
import {
  type BoardJob,
  JOB_FORMAT,
  JOB_VERSION,
  type JobCut,
  type JobDocument,
  type JobMaking,
  MOST_BOARDS,
  MOST_CLAMPS,
  STOPS,
  ZEROS,
  MOST_COAT,
} from "./document.ts";
import { boardJob } from "./boards.ts";
import { migrated } from "./migrate.ts";
import { GIVES, type Takes } from "../makings/product.ts";
import { makingKind, MAKINGS } from "../makings/register.ts";

const length = { type: "number", exclusiveMinimum: 0, maximum: 10000 };
const place = { type: "number", minimum: -10000, maximum: 10000 };
const id = { type: "string", minLength: 1, maxLength: 60 };
const name = { type: "string", maxLength: 200 };
const reads = { type: "object", maxProperties: 50, additionalProperties: id };

const stock = {
  type: "object",
  required: ["width", "height", "thickness", "material", "zero", "margin"],
  additionalProperties: false,
  properties: {
    width: length,
    height: length,
    thickness: { type: "number", exclusiveMinimum: 0, maximum: 500 },
    material: materialSchema,
    zero: { enum: ZEROS },
    margin: { type: "number", minimum: 0, maximum: 500 },
    paint: { type: "string", pattern: "^#[0-9a-fA-F]{6}$" },
    coat: { type: "number", minimum: 0, maximum: MOST_COAT },
    clamps: {
      type: "array",
      maxItems: MOST_CLAMPS,
      items: {
        type: "object",
        required: ["x", "y", "width", "height", "tall"],
        additionalProperties: false,
        properties: {
          x: place,
          y: place,
          width: length,
          height: length,
          tall: { type: "number", minimum: 0, maximum: 500 },
          round: { type: "boolean" },
        },
      },
    },
  },
};

const naming = {
  type: "object",
  additionalProperties: false,
  properties: { pattern: name, person: name, class: name },
};

const rules = {
  type: "object",
  required: ["open"],
  additionalProperties: false,
  properties: {
    open: { type: "array", uniqueItems: true, items: { enum: Object.keys(OPEN) } },
    least: length,
    most: length,
  },
};

const making = {
  type: "object",
  required: ["id", "kind", "name", "reads", "settings"],
  additionalProperties: false,
  properties: {
    id,
    kind: id,
    name,
    reads,
    settings: { type: "object" },
    asset: {
      type: "object",
      required: ["sha", "name", "width", "height"],
      additionalProperties: false,
      properties: {
        sha: { type: "string", pattern: "^[0-9a-f]{64}$" },
        name,
        width: { type: "integer", minimum: 1 },
        height: { type: "integer", minimum: 1 },
      },
    },
  },
};

const cut = {
  type: "object",
  required: ["id", "kind", "name", "on", "reads", "cutter", "settings"],
  additionalProperties: false,
  properties: {
    id,
    kind: id,
    name,
    on: { type: "boolean" },
    reads,
    target: id,
    cutter: cutterSchema,
    settings: { type: "object" },
    group: name,
    stop: {
      type: "object",
      required: ["what", "note"],
      additionalProperties: false,
      properties: { what: { enum: Object.keys(STOPS) }, note: name },
    },
  },
};

const board = {
  type: "object",
  required: ["id", "name", "stock", "cuts", "cell"],
  additionalProperties: false,
  properties: {
    id,
    name,
    stock,
    cuts: { type: "array", maxItems: 200, items: cut },
    cell: { type: "number", minimum: 0, maximum: 10 },
  },
};

/** The document's own schema; the settings of each making and cut follow from its kind's fields. */
export const jobSchema = {
  type: "object",
  required: ["format", "version", "name", "makings", "boards", "machine", "dialect"],
  additionalProperties: false,
  properties: {
    format: { const: JOB_FORMAT },
    version: { const: JOB_VERSION },
    name,
    makings: { type: "array", maxItems: 200, items: making },
    boards: { type: "array", minItems: 1, maxItems: MOST_BOARDS, items: board },
    machine: machineSchema,
    dialect: dialectSchema,
    drawing: { enum: DRAWING_STYLES },
    naming,
    start: rules,
    kept: { const: true },
    begun: {
      type: "object",
      required: ["id", "name", "rules"],
      additionalProperties: false,
      properties: { id, name, rules, picture: { type: "string", pattern: "^[0-9a-f]{64}$" } },
    },
  },
} as const;

const ajv = new Ajv({ allErrors: false, strict: true });
const checkShape = ajv.compile<JobDocument>(jobSchema);
const settingsChecks = new Map<string, ReturnType<typeof ajv.compile>>();

function checkSettings(kind: string, fields: readonly Field[], settings: unknown): ErrorObject | null {
  let check = settingsChecks.get(kind);
  if (!check) settingsChecks.set(kind, (check = ajv.compile(settingsSchema(fields))));
  return check(settings) ? null : check.errors![0];
}

/**
 * Checks that something is a job this version can open, and brings one of an older version up to this one.
 * @param shop what older documents name without holding it
 * @throws Problem `not-a-job`, `newer-job`, `bad-job` saying where, or `unknown-kind`
 */
export function checkJob(doc: unknown, shop: Shop): JobDocument {
  if (typeof doc !== "object" || doc === null || (doc as JobDocument).format !== JOB_FORMAT)
    throw new Problem("not-a-job", "This file is not an Oaken Bit job. Choose a job file (job.json) or a picture.");
  const { version } = doc as JobDocument;
  if (typeof version === "number" && version > JOB_VERSION)
    throw new Problem(
      "newer-job",
      `This job was written by a newer version of Oaken Bit (document version ${version}; this one reads up to ` +
        `${JOB_VERSION}). Open it there, or update this one.`,
    );
  const job = migrated(doc, shop) as JobDocument;
  if (!checkShape(job)) throw badJob("", checkShape.errors![0]);
  checkDialect(job.dialect);
  const ids = new Set<string>();
  for (const { id } of job.boards) {
    if (ids.has(id)) throw usedTwice(id);
    ids.add(id);
  }
  for (const { id } of job.boards) checkBoard(boardJob(job, id));
  return job;
}

/** Checks a job on one of its boards. @returns the same @throws Problem as {@link checkJob} */
export function checkBoard(job: BoardJob): BoardJob {
  const ids = new Set<string>();
  for (const { id } of [...job.makings, ...job.cuts]) {
    if (ids.has(id)) throw usedTwice(id);
    ids.add(id);
  }
  for (const making of job.makings) {
    const kind = MAKINGS.find((k) => k.kind === making.kind);
    if (!kind) throw unknownKind(making.kind);
    checkPart(making, kind.fields);
    checkReads(job, making, kind.reads, false);
    checkCircle(job, making);
  }
  for (const cut of job.cuts) {
    const kind = CUTS.find((k) => k.kind === cut.kind);
    if (!kind) throw unknownKind(cut.kind);
    checkPart(cut, kind.fields);
    checkReads(job, cut, kind.reads, true);
    checkTargets(job, cut);
  }
  return job;
}

const usedTwice = (id: string): Problem => new Problem("bad-job", `This job uses the name "${id}" twice.`);
const unknownKind = (kind: string): Problem =>
  new Problem(
    "unknown-kind",
    `This job has a step of kind "${kind}", which this version of Oaken Bit does not know. Open it with a ` +
      "newer version.",
  );
const called = (part: { id: string; name: string }): string => `"${part.name || part.id}"`;

function checkPart(part: JobMaking | JobCut, fields: readonly Field[]): void {
  const error = checkSettings(part.kind, fields, part.settings);
  if (error) throw badJob(`${part.name || part.id}: `, error);
}

/**
 * What a part reads is there and gives what it can take.
 * @param mayLack whether it may stand without what it needs, as a cut does whose outline was deleted
 */
function checkReads(job: BoardJob, part: JobMaking | JobCut, takes: Takes, mayLack: boolean): void {
  for (const [name, take] of Object.entries(takes))
    if (!Object.hasOwn(part.reads, name) && !take.optional && !mayLack)
      throw new Problem("bad-job", `${called(part)} reads nothing as its ${take.label.toLowerCase()}. ${DAMAGED}`);
  for (const [name, id] of Object.entries(part.reads)) {
    if (!Object.hasOwn(takes, name))
      throw new Problem(
        "bad-job",
        `${called(part)} reads something as "${name}", of which it knows nothing. ${DAMAGED}`,
      );
    const read = job.makings.find((n) => n.id === id);
    if (!read) throw new Problem("bad-job", `${called(part)} reads "${id}", which is not in this job.`);
    const { gives } = makingKind(read.kind);
    if (gives !== takes[name].gives)
      throw new Problem(
        "bad-job",
        `${called(part)} reads ${called(read)}, which gives ${GIVES[gives]}; ` +
          `it can only read ${GIVES[takes[name].gives]}.`,
      );
  }
}

const DAMAGED = "The job file was changed by hand or is damaged: export it again where it was made.";

/** Nothing is made from itself, nor in a circle. */
function checkCircle(job: BoardJob, making: JobMaking): void {
  const seen = new Set<string>();
  const waiting = Object.values(making.reads);
  for (let id = waiting.pop(); id !== undefined; id = waiting.pop()) {
    if (id === making.id)
      throw new Problem("bad-job", `${called(making)} is made from itself, by way of what it reads.`);
    if (seen.has(id)) continue;
    seen.add(id);
    waiting.push(...Object.values(job.makings.find((n) => n.id === id)?.reads ?? {}));
  }
}

/** A cut may help another, that one a third; none helps itself, nor one in a circle. */
function checkTargets(job: BoardJob, cut: JobCut): void {
  const passed = new Set<string>();
  for (let at: JobCut | undefined = cut; at; at = job.cuts.find((c) => c.id === at!.target)) {
    if (passed.has(at.id)) throw new Problem("bad-job", `${called(cut)} helps itself, by way of what it helps.`);
    passed.add(at.id);
  }
}

function badJob(where: string, e: ErrorObject): Problem {
  const path = e.instancePath.slice(1).replaceAll("/", " › ");
  const extra =
    e.keyword === "additionalProperties"
      ? ` ("${(e.params as { additionalProperty: string }).additionalProperty}")`
      : "";
  return new Problem("bad-job", `This job cannot be opened: ${where}${path ? `${path} ` : ""}${e.message}${extra}.`);
}
