import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { request } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { documentOf } from "@oaken/core/job/boards";
import type { Board, JobDocument } from "@oaken/core/job/document";
import { type Running, startServer } from "./server.ts";
import { begun } from "@oaken/core/testing/shop";

const dir = mkdtempSync(join(tmpdir(), "oaken-boundary-"));
const data = join(dir, "data");
let server: Running;
let picture: { sha: string; width: number; height: number };
let job: { id: string; revision: number };
let document: JobDocument;

interface Answer {
  status: number;
  text: string;
}

/**
 * A request as written, with whatever headers and path: nothing here is put right on the way, as a browser or fetch
 * would.
 */
function ask(
  method: string,
  path: string,
  body: Uint8Array | string | null = null,
  headers: Record<string, string> = {},
): Promise<Answer> {
  const { port } = new URL(server.url);
  return new Promise((done, failed) => {
    const r = request(
      {
        host: "127.0.0.1",
        port,
        method,
        path,
        headers: {
          host: `127.0.0.1:${port}`,
          ...(body !== null && { "content-length": String(Buffer.byteLength(body)) }),
          ...headers,
        },
      },
      (answer) => {
        const chunks: Buffer[] = [];
        answer.on("data", (c: Buffer) => chunks.push(c));
        answer.on("end", () => done({ status: answer.statusCode!, text: Buffer.concat(chunks).toString("utf8") }));
      },
    );
    r.on("error", failed);
    if (body !== null) r.write(body);
    r.end();
  });
}
const json = (method: string, path: string, value: unknown) =>
  ask(method, path, JSON.stringify(value), { "content-type": "application/json" });
const newJob = (edit: (j: JobDocument) => void = () => {}): JobDocument => {
  const asset = { ...picture, name: "art.png" };
  const j = documentOf(begun("sign", asset, { width: 120, height: 90, thickness: 18 }));
  edit(j);
  return j;
};

beforeAll(async () => {
  writeFileSync(join(dir, "secret.txt"), "not for anyone");
  server = await startServer(data);
  const png = await sharp(
    Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200"><rect width="300" height="200" ' +
        'fill="#fff"/><circle cx="150" cy="100" r="70"/></svg>',
    ),
  )
    .png()
    .toBuffer();
  picture = JSON.parse((await ask("POST", "/api/assets?name=art.png", png)).text) as typeof picture;
  document = newJob();
  job = JSON.parse((await json("POST", "/api/jobs", { document })).text) as typeof job;
});
afterAll(async () => void (await server?.kill("SIGKILL")));

/** One clear sentence, and none of the insides. */
function expectSentence(a: Answer, says: RegExp): void {
  const { code, message } = JSON.parse(a.text) as { code: string; message: string };
  expect(code).toMatch(/^[a-z-]+$/);
  expect(message).toMatch(says);
  expect(message).toMatch(/^\S[^\n]* [^\n]*\.$/);
  expect(a.text).not.toMatch(/at .*\.(ts|js):\d|node_modules|SQLITE|\/tmp\//);
}

describe("what asks from elsewhere", () => {
  const refused: [string, string, Record<string, string>][] = [
    ["another name for this machine", "GET", { host: "rebound.example" }],
    ["another site's page", "POST", { origin: "http://other.example" }],
    ["this machine on another port", "POST", { origin: "http://127.0.0.1:1" }],
    ["a page without an origin", "DELETE", { origin: "null" }],
    ["a form on another site", "POST", { "sec-fetch-site": "cross-site" }],
    ["a neighbour's page", "PUT", { "sec-fetch-site": "same-site" }],
  ];
  for (const [name, method, headers] of refused)
    it(`${name} is refused`, async () => {
      const a = await ask(method, "/api/jobs", method === "GET" ? null : "{}", headers);
      // 405: there is no such request at all.
      expect([400, 403, 405]).toContain(a.status);
      expect(a.text).not.toContain(job.id);
    });
});

describe("what is asked for", () => {
  const paths = [
    "../secret.txt",
    "..%2fsecret.txt",
    "..%2f..%2f..%2fetc%2fpasswd",
    "%2e%2e/%2e%2e/secret.txt",
    "....//secret.txt",
    "a".repeat(64),
    `${"0".repeat(63)}g`,
    "",
    "%00",
    "oaken.sqlite",
    "con",
  ];
  for (const p of paths)
    it(`a picture called ${p.slice(0, 24) || "nothing"} is none`, async () => {
      for (const kind of ["picture", "pixels"]) {
        const a = await ask("GET", `/api/assets/${p}/${kind}`);
        expect(a.status).toBeGreaterThanOrEqual(300);
        expect(a.status).toBeLessThan(500);
        expect(a.text).not.toContain("not for anyone");
        expect(a.text).not.toContain("root:");
      }
    });
  it("jobs that are none answer so, whatever is asked of them", async () => {
    for (const [method, path, body] of [
      ["GET", "", null],
      ["GET", "/file", null],
      ["GET", "/revisions", null],
      ["PATCH", "", { archived: true }],
      ["PUT", "", { base: 1, document, summary: "x" }],
      ["POST", "/copy", {}],
    ] as const) {
      const a = await (body === null
        ? ask(method, `/api/jobs/nonesuch${path}`)
        : json(method, `/api/jobs/nonesuch${path}`, body));
      if (path === "/revisions" && a.status === 200) expect(a.text).toBe("[]");
      else {
        expect(a.status).toBe(404);
        expectSentence(a, /no such job|no job/i);
      }
    }
    expect((await ask("GET", "/api/jobs/nonesuch/thumb")).status).toBe(404);
  });
});

describe("what is sent", () => {
  const bodies: [string, string, string, string | Uint8Array, RegExp][] = [
    ["no JSON", "POST", "/api/jobs", "{", /not readable JSON/],
    ["JSON that is no request", "POST", "/api/jobs", "[1,2]", /must be object/],
    ["a request for more than it may", "POST", "/api/jobs", '{"document":{},"admin":true}', /additional properties/],
    ["a document that is none", "POST", "/api/jobs", '{"document":{"version":1}}', /./],
    ["an empty picture", "POST", "/api/assets?name=none.png", "", /./],
    ["a text called a picture", "POST", "/api/assets?name=hello.png", "hello, this is no picture", /hello\.png/],
    [
      "a picture cut short",
      "POST",
      "/api/assets?name=half.png",
      Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13),
      /half\.png/,
    ],
    [
      "a drawing that reaches for files",
      "POST",
      "/api/assets?name=reach.svg",
      `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="4000000" ` +
        `height="4000000"><image xlink:href="file:///etc/passwd" width="10" height="10"/></svg>`,
      /./,
    ],
    ["a job file that is none", "POST", "/api/jobs/import", "PK\u0003\u0004", /./],
    ["a job file of another kind", "POST", "/api/jobs/import", '{"hello":"world"}', /./],
  ];
  for (const [name, method, path, body, says] of bodies)
    it(`${name} is refused with a sentence`, async () => {
      const a = await ask(method, path, body);
      expect(a.status).toBeGreaterThanOrEqual(400);
      expect(a.status).toBeLessThan(500);
      expectSentence(a, says);
    });
  it("more than is taken is refused", async () => {
    const a = await ask("POST", "/api/jobs", " ".repeat(5 << 20));
    expect(a.status).toBe(413);
    expectSentence(a, /4 MB/);
  });
  it("a large picture arrives whole", async () => {
    // Noise cannot be packed: 27 MB.
    const noise = Buffer.alloc(3 * 3000 * 3000);
    let v = 1;
    for (let i = 0; i < noise.length; i++) noise[i] = (v = (v * 1664525 + 1013904223) >>> 0) >>> 24;
    const png = await sharp(noise, { raw: { width: 3000, height: 3000, channels: 3 } })
      .png({ compressionLevel: 0 })
      .toBuffer();
    expect(png.length).toBeGreaterThan(26e6);
    const a = await ask("POST", "/api/assets?name=large.png", png);
    expect(a.status, a.text).toBe(200);
    expect(JSON.parse(a.text)).toMatchObject({ width: 3000, height: 3000 });
  });
  it("a name that is a path stays a name", async () => {
    const png = await sharp({ create: { width: 32, height: 24, channels: 3, background: "#123" } })
      .png()
      .toBuffer();
    const a = await ask("POST", `/api/assets?name=${encodeURIComponent("../../../evil\u0000.png")}`, png);
    expect(a.status, a.text).toBe(200);
    expect((JSON.parse(a.text) as { name: string }).name).not.toMatch(/[\\/\u0000]/);
    expect(readdirSync(dir).sort()).toEqual(["data", "secret.txt"]);
  });
});

describe("saving", () => {
  const save = (base: number, doc: unknown) =>
    json("PUT", `/api/jobs/${job.id}`, { base, document: doc, summary: "test" });
  it("from a stale revision is refused, and what is there stays", async () => {
    const first = await save(
      job.revision,
      newJob((j) => void (j.name = "the first")),
    );
    expect(first.status).toBe(200);
    const late = await save(
      job.revision,
      newJob((j) => void (j.name = "the late one")),
    );
    expect(late.status).toBe(409);
    expectSentence(late, /./);
    expect(
      (JSON.parse((await ask("GET", `/api/jobs/${job.id}`)).text) as { document: JobDocument }).document.name,
    ).toBe("the first");
  });
  const wrong: [string, (j: JobDocument) => void][] = [
    ["of a newer version", (j) => void ((j as { version: number }).version = 99)],
    ["without a stock", (j) => void delete (j.boards[0] as Partial<Board>).stock],
    ["with a stock of nothing", (j) => void (j.boards[0].stock.width = 0)],
    ["with a stock thinner than nothing", (j) => void (j.boards[0].stock.thickness = -3)],
    ["with makings that are no list", (j) => void ((j as unknown as { makings: unknown }).makings = "none")],
  ];
  for (const [name, edit] of wrong)
    it(`a job ${name} is refused with a sentence, and what is there stays`, async () => {
      const before = (await ask("GET", `/api/jobs/${job.id}`)).text;
      const { card } = JSON.parse(before) as { card: { revision: number } };
      const a = await save(card.revision, newJob(edit));
      expect(a.status).toBe(400);
      expectSentence(a, /./);
      expect((await ask("GET", `/api/jobs/${job.id}`)).text).toBe(before);
    });
  it("the proof's picture must be one", async () => {
    const a = await ask("PUT", `/api/jobs/${job.id}/thumb`, "GIF89a");
    expect(a.status).toBe(400);
    expectSentence(a, /PNG/);
  });
});

it("after all this the server answers, the jobs are whole, and nothing half-written is left", async () => {
  const list = JSON.parse((await ask("GET", "/api/jobs")).text) as { id: string }[];
  expect(list.map((j) => j.id)).toContain(job.id);
  expect((await ask("GET", `/api/assets/${picture.sha}/picture?side=64`)).status).toBe(200);
  const kept = readdirSync(join(data, "assets"));
  expect(kept.every((name) => /^[0-9a-f]{64}$/.test(name))).toBe(true);
  expect(readFileSync(join(dir, "secret.txt"), "utf8")).toBe("not for anyone");
});
