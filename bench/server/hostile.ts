import { readFileSync } from "node:fs";
import { seeded } from "@oaken/core/testing/random";
import { COSTLY } from "@oaken/files/testing/hostile";
import { row } from "../measure.ts";
import { ask, newJob, picture } from "./clients.ts";

const INPUTS = Number(process.env.OAKEN_HOSTILE ?? 2000);
const SEED = Number(process.env.OAKEN_SEED ?? 1);
/** Requests that are under way at once. */
const AT_ONCE = 12;

/**
 * Hostile bodies at every route that takes one, while another window asks for the list: how long it ever waits, how
 * large the server grows, and whether anything was answered with a fault (500).
 */
export async function benchHostile(url: string, pid: number): Promise<void> {
  console.log(`\n${INPUTS} hostile inputs (seed ${SEED}), ${AT_ONCE} at a time, while a window asks for the list`);
  const random = seeded(SEED);
  const { id, document } = await newJob(url, 61);
  const good = await picture(62);
  const counts = new Map<number, number>();
  let [worst, asked, most, done] = [0, 0, 0, false];
  const watching = (async () => {
    while (!done) {
      const t0 = performance.now();
      await ask(`${url}/api/jobs`);
      worst = Math.max(worst, performance.now() - t0);
      asked++;
      most = Math.max(most, residentBytes(pid));
      await new Promise((r) => setTimeout(r, 20));
    }
  })();
  const inputs = Array.from({ length: INPUTS }, (_, k) => hostile(random, k, id, document, good));
  const windows = Array.from({ length: AT_ONCE }, async () => {
    for (let next = inputs.shift(); next; next = inputs.shift()) {
      const { status } = await ask(url + next.path, next.method, next.body);
      counts.set(status, (counts.get(status) ?? 0) + 1);
      if (status === 500 || status === 0) console.log(`    ${status} for ${next.what}`);
    }
  });
  await Promise.all(windows);
  done = true;
  await watching;
  const answers = [...counts].sort(([a], [b]) => a - b).map(([status, n]) => `${n} × ${status}`);
  row("answers", `${counts.get(500) ?? 0} × 500`, answers.join(", "));
  row("longest wait for the list", `${worst.toFixed(0)} ms`, `asked 200 at most; ${asked} times asked`);
  row("largest memory of the server", `${(most / 2 ** 20).toFixed(0)} MB`);
}

interface Input {
  what: string;
  path: string;
  method: string;
  body: Uint8Array | string;
}

function hostile(random: () => number, k: number, id: string, document: object, good: Buffer): Input {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  // Costly drawings are few: each may take its ten seconds.
  if (k % 200 === 0) {
    const [what, body] = COSTLY[(k / 200) % COSTLY.length];
    return { what, path: "/api/assets?name=costly.svg", method: "POST", body };
  }
  const text = () => JSON.stringify(spoilt(random, document));
  const noise = () => Uint8Array.from({ length: Math.floor(random() * 3000) }, () => random() * 256);
  const bitten = () => {
    const b = Buffer.from(good.subarray(0, Math.ceil(random() * good.length)));
    for (let n = 0; n < 4; n++) b[Math.floor(random() * b.length)] = random() * 256;
    return b;
  };
  const strangeId = pick([id, "%00", "..%2f..%2foaken.sqlite", "a".repeat(3000), "%ff%fe", `${id}%00`]);
  const number = pick(["-1", "1e999", "NaN", "", "5"]);
  return pick<() => Input>([
    () => ({ what: "a damaged picture", path: "/api/assets?name=%00%0a../x", method: "POST", body: bitten() }),
    () => ({ what: "noise for a picture", path: "/api/assets", method: "POST", body: noise() }),
    () => ({ what: "a spoilt job file", path: "/api/jobs/import", method: "POST", body: text() }),
    () => ({ what: "a spoilt save", path: `/api/jobs/${strangeId}`, method: "PUT", body: saveOf(random, document) }),
    () => ({ what: "a spoilt new job", path: "/api/jobs", method: "POST", body: `{"document":${text()}}` }),
    () => ({ what: "noise for a save", path: `/api/jobs/${id}`, method: "PUT", body: noise() }),
    () => ({
      what: "a strange patch",
      path: `/api/jobs/${id}`,
      method: "PATCH",
      body: `{"written":${pick([-5, 1e9, 0.5])}}`,
    }),
    () => ({
      what: "a strange thumbnail",
      path: `/api/jobs/${id}/thumb?seconds=${number}`,
      method: "PUT",
      body: bitten(),
    }),
    () => ({ what: "a strange copy", path: `/api/jobs/${strangeId}/copy`, method: "POST", body: '{"key":-1}' }),
    () => ({ what: "a deep text", path: "/api/jobs/import", method: "POST", body: "[".repeat(1e5) }),
  ])();
}

const saveOf = (random: () => number, document: object): string =>
  JSON.stringify({ base: Math.floor(random() * 5) - 1, document: spoilt(random, document), summary: "hostile" });

/** The document with one or two of its values made into something else. */
function spoilt(random: () => number, document: object): unknown {
  const copy = structuredClone(document) as Record<string, unknown>;
  const values = () => [null, -1, 1e300, "", "x".repeat(5000), [], {}, "outline", true, "__proto__"];
  for (let n = 0; n < 1 + random() * 2; n++) {
    let at: Record<string, unknown> = copy;
    for (;;) {
      const keys = Object.keys(at);
      const key = keys[Math.floor(random() * keys.length)];
      const inner = at[key];
      if (key !== undefined && typeof inner === "object" && inner !== null && random() < 0.8) {
        at = inner as Record<string, unknown>;
        continue;
      }
      at[key ?? "x"] = values()[Math.floor(random() * 10)];
      break;
    }
  }
  return copy;
}

/** Resident memory of the server's own process, bytes; its decoders have limits of their own. */
function residentBytes(pid: number): number {
  try {
    return Number(readFileSync(`/proc/${pid}/statm`, "latin1").split(" ")[1]) * 4096;
  } catch {
    return 0;
  }
}
