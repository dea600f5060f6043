import Ajv, { type ErrorObject } from "ajv";
import { CUTS } from "../cuts/register.ts";
import { Problem } from "../problem.ts";
import { DRAWING_STYLES } from "../output/dxf.ts";
import { dialectById } from "../output/gcode/dialects.ts";
import { type Field, settingsSchema } from "../settings/fields.ts";
import { JOB_FORMAT, JOB_VERSION, type JobCut, type JobDocument, type JobNode, STOPS, ZEROS } from "./document.ts";
import type { Machine } from "../cutters/feeds.ts";
import { materialById } from "../cutters/materials.ts";
import type { Takes } from "../makings/product.ts";
import { makingKind, MAKINGS } from "../makings/register.ts";

const length = { type: "number", exclusiveMinimum: 0, maximum: 10000 };
const id = { type: "string", minLength: 1, maxLength: 60 };
const name = { type: "string", maxLength: 200 };
const positive = { type: "number", exclusiveMinimum: 0 };

const cutter = {
  type: "object",
  required: ["kind", "diameter", "flutes", "fluteLength", "centreCutting"],
  additionalProperties: false,
  properties: {
    kind: { enum: ["flat", "ball", "v", "taper", "drill", "torch"] },
    diameter: { type: "number", exclusiveMinimum: 0, maximum: 200 },
    angle: { type: "number", minimum: 1, maximum: 179 },
    tip: { type: "number", minimum: 0, maximum: 50 },
    tipRadius: { ...positive, maximum: 100 },
    halfAngle: { type: "number", exclusiveMinimum: 0, maximum: 85 },
    flutes: { type: "integer", minimum: 1, maximum: 12 },
    fluteLength: { ...positive, maximum: 1000 },
    centreCutting: { type: "boolean" },
    name,
    id,
  },
};

/** The most that any machine does, in the units of {@link Machine}: beyond it a number is a slip of the pen. */
const machineMost = {
  spindleLeast: 200_000,
  spindleMost: 200_000,
  power: 100_000,
  feedMost: 100_000,
  plungeMost: 100_000,
  rapid: 200_000,
  rapidZ: 200_000,
  acceleration: 100_000,
  accelerationZ: 100_000,
  junction: 10,
} satisfies Partial<Machine>;
const seconds = { type: "number", minimum: 0, maximum: 86_400 };
const machine = {
  type: "object",
  required: ["name", ...Object.keys(machineMost), "spindleStart", "toolChange"],
  additionalProperties: false,
  properties: {
    name,
    ...Object.fromEntries(Object.entries(machineMost).map(([k, maximum]) => [k, { ...positive, maximum }])),
    spindleStart: seconds,
    toolChange: seconds,
  },
};

/** The document's own schema; the settings of each node and cut follow from its kind's fields. */
export const jobSchema = {
  type: "object",
  required: ["format", "version", "name", "stock", "nodes", "cuts", "machine", "dialect", "cell"],
  additionalProperties: false,
  properties: {
    format: { const: JOB_FORMAT },
    version: { const: JOB_VERSION },
    name,
    stock: {
      type: "object",
      required: ["width", "height", "thickness", "material", "zero", "margin"],
      additionalProperties: false,
      properties: {
        width: length,
        height: length,
        thickness: { type: "number", exclusiveMinimum: 0, maximum: 500 },
        material: id,
        zero: { enum: ZEROS },
        margin: { type: "number", minimum: 0, maximum: 500 },
        paint: { type: "string", pattern: "^#[0-9a-fA-F]{6}$" },
      },
    },
    nodes: {
      type: "array",
      maxItems: 200,
      items: {
        type: "object",
        required: ["id", "kind", "name", "reads", "settings"],
        additionalProperties: false,
        properties: {
          id,
          kind: id,
          name,
          reads: { type: "array", items: id, maxItems: 50 },
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
      },
    },
    cuts: {
      type: "array",
      maxItems: 200,
      items: {
        type: "object",
        required: ["id", "kind", "name", "on", "reads", "cutter", "settings"],
        additionalProperties: false,
        properties: {
          id,
          kind: id,
          name,
          on: { type: "boolean" },
          reads: { type: "array", items: id, maxItems: 50 },
          target: id,
          cutter,
          settings: { type: "object" },
          group: name,
          stop: {
            type: "object",
            required: ["what", "note"],
            additionalProperties: false,
            properties: { what: { enum: Object.keys(STOPS) }, note: name },
          },
        },
      },
    },
    machine,
    dialect: id,
    cell: { type: "number", minimum: 0, maximum: 10 },
    drawing: { enum: DRAWING_STYLES },
  },
} as const;

const ajv = new Ajv({ allErrors: false, strict: true });
const checkShape = ajv.compile(jobSchema);
const settingsChecks = new Map<string, ReturnType<typeof ajv.compile>>();

function checkSettings(kind: string, fields: readonly Field[], settings: unknown): ErrorObject | null {
  let check = settingsChecks.get(kind);
  if (!check) settingsChecks.set(kind, (check = ajv.compile(settingsSchema(fields))));
  return check(settings) ? null : check.errors![0];
}

/**
 * Checks that something is a job this version can open.
 * @throws Problem `not-a-job`, `newer-job`, `bad-job` saying where, or `unknown-kind`
 */
export function checkJob(doc: unknown): JobDocument {
  if (typeof doc !== "object" || doc === null || (doc as JobDocument).format !== JOB_FORMAT)
    throw new Problem("not-a-job", "This file is not an Oaken Bit job. Choose a job file (job.json) or a picture.");
  const { version } = doc as JobDocument;
  if (typeof version === "number" && version > JOB_VERSION)
    throw new Problem(
      "newer-job",
      `This job was written by a newer version of Oaken Bit (document version ${version}; this one reads up to ` +
        `${JOB_VERSION}). Open it there, or update this one.`,
    );
  if (!checkShape(doc)) throw badJob("", checkShape.errors![0]);
  const job = doc as unknown as JobDocument;
  dialectById(job.dialect);
  materialById(job.stock.material);
  const ids = new Set<string>();
  for (const part of [...job.nodes, ...job.cuts]) {
    if (ids.has(part.id)) throw new Problem("bad-job", `This job uses the name "${part.id}" twice.`);
    ids.add(part.id);
  }
  for (const node of job.nodes) {
    const kind = MAKINGS.find((k) => k.kind === node.kind);
    if (!kind) throw unknownKind(node.kind);
    checkPart(node, kind.fields);
    checkReads(job, node, kind.reads, false);
    checkCircle(job, node);
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

const unknownKind = (kind: string): Problem =>
  new Problem(
    "unknown-kind",
    `This job has a step of kind "${kind}", which this version of Oaken Bit does not know. Open it with a ` +
      "newer version.",
  );
const called = (part: { id: string; name: string }): string => `"${part.name || part.id}"`;

function checkPart(part: JobNode | JobCut, fields: readonly Field[]): void {
  const error = checkSettings(part.kind, fields, part.settings);
  if (error) throw badJob(`${part.name || part.id}: `, error);
}

/**
 * What a part reads is there and gives what it can take.
 * @param mayLack whether it may stand without what it needs, as a cut does whose outline was deleted
 */
function checkReads(job: JobDocument, part: JobNode | JobCut, takes: Takes, mayLack: boolean): void {
  const wanted = Object.values(takes);
  const least = mayLack ? 0 : wanted.filter((t) => !t.optional).length;
  const most = Math.max(wanted.length, mayLack ? 1 : 0);
  if (part.reads.length < least || part.reads.length > most)
    throw new Problem(
      "bad-job",
      `${called(part)} reads ${part.reads.length} other steps where it needs ${wanted.length}. The job file was ` +
        "changed by hand or is damaged: export it again where it was made.",
    );
  part.reads.forEach((id, k) => {
    const read = job.nodes.find((n) => n.id === id);
    if (!read) throw new Problem("bad-job", `${called(part)} reads "${id}", which is not in this job.`);
    const { gives } = makingKind(read.kind);
    if (gives !== wanted[k].gives)
      throw new Problem(
        "bad-job",
        `${called(part)} reads ${called(read)}, which gives ${WORDS[gives]}; ` +
          `it can only read ${WORDS[wanted[k].gives]}.`,
      );
  });
}

const WORDS = { raster: "a picture", grey: "greys", shapes: "shapes" } as const;

/** Nothing is made from itself, nor in a circle. */
function checkCircle(job: JobDocument, node: JobNode): void {
  const seen = new Set<string>();
  const waiting = [...node.reads];
  for (let id = waiting.pop(); id !== undefined; id = waiting.pop()) {
    if (id === node.id) throw new Problem("bad-job", `${called(node)} is made from itself, by way of what it reads.`);
    if (seen.has(id)) continue;
    seen.add(id);
    waiting.push(...(job.nodes.find((n) => n.id === id)?.reads ?? []));
  }
}

/** A cut may help another, that one a third; none helps itself, nor one in a circle. */
function checkTargets(job: JobDocument, cut: JobCut): void {
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
