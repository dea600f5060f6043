import { type ChildProcess, spawn } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";
import { setPriority } from "node:os";
import { Problem } from "@oaken/core/problem";
import { type Answer, type Ask, headLine, Unpacker } from "./protocol.ts";

export interface Limits {
  /** of the processor's time, where the system tells it; else of the clock's */
  seconds: number;
  /** resident memory, bytes */
  bytes: number;
}

/** A decoder that took more than it may. */
export class Overrun extends Error {
  constructor(readonly of: "time" | "memory") {
    super(`The decoder took more ${of} than it may.`);
  }
}

/** Decoders at work at once; others wait their turn. */
const MOST = 2;
/** How often a decoder's memory is looked at, ms. */
const LOOK_MS = 20;
/** One that has grown beyond this is not used again, bytes. */
const STILL_SMALL = 300 << 20;
/** On a machine that is busy with other things work takes longer than its own time: so many times as long at most. */
const PATIENCE = 6;
/** The system itself gives a decoder no more than this many times its limit: a look may come late. */
const WALL = 1.25;
/** Below everything else that the machine does. */
const NICE = 10;

interface Decoder {
  child: ChildProcess;
  /** who waits for what it says next */
  waiting: { done(head: Answer, body: Buffer): void; failed(e: Error): void } | null;
}

/** One that did its work well and waits for more. */
let spare: Decoder | null = null;
let working = 0;
const queue: (() => void)[] = [];

/**
 * Has a decoder do something, within limits of time and memory; a decoder that passes them is killed.
 * @throws Overrun, or the Problem that the decoder answers with
 */
export async function within(limits: Limits, ask: Ask, bytes?: Uint8Array): Promise<{ head: Answer; body: Buffer }> {
  if (working >= MOST) await new Promise<void>((turn) => queue.push(turn));
  working++;
  try {
    const answer = await askDecoder(limits, ask, bytes);
    if (answer.head.is === "problem") throw new Problem(answer.head.code, answer.head.message);
    return answer;
  } finally {
    working--;
    queue.shift()?.();
  }
}

async function askDecoder(limits: Limits, ask: Ask, bytes?: Uint8Array): Promise<{ head: Answer; body: Buffer }> {
  const decoder = spare ?? start(limits);
  spare = null;
  const { child } = decoder;
  hold(child, true);
  let over: Overrun | null = null;
  const giveUp = (of: Overrun["of"]) => {
    over ??= new Overrun(of);
    child.kill("SIGKILL");
  };
  const before = secondsOf(child);
  const late = setTimeout(() => giveUp("time"), limits.seconds * 1000 * (before === null ? 1 : PATIENCE));
  const look = () => {
    if (memoryOf(child) > limits.bytes) giveUp("memory");
    if (before !== null && (secondsOf(child) ?? 0) - before > limits.seconds) giveUp("time");
  };
  const looking = setInterval(look, LOOK_MS);
  try {
    const answer = await new Promise<{ head: Answer; body: Buffer }>((done, failed) => {
      decoder.waiting = { done: (head, body) => done({ head, body }), failed };
      child.stdin!.write(headLine(ask));
      if (bytes) child.stdin!.write(bytes);
    });
    if (!spare && memoryOf(child) < STILL_SMALL) {
      spare = decoder;
      hold(child, false);
    } else child.stdin!.end();
    return answer;
  } catch (e) {
    child.kill("SIGKILL");
    throw over ?? e;
  } finally {
    decoder.waiting = null;
    clearTimeout(late);
    clearInterval(looking);
  }
}

function start(limits: Limits): Decoder {
  const script = process.env.OAKEN_DECODER;
  if (!script || !existsSync(script)) throw new Error("The decoder is missing: start Oaken Bit by ./oaken.");
  const node = [process.execPath, "--max-old-space-size=800", script];
  // Where there is a shell that can, the system holds the limit too.
  const wall = Math.round((WALL * limits.bytes) / 1024);
  const command =
    process.platform === "win32" ? node : ["/bin/sh", "-c", `ulimit -d ${wall} 2>/dev/null; exec "$@"`, "sh", ...node];
  const child = spawn(command[0], command.slice(1), { stdio: ["pipe", "pipe", "ignore"], windowsHide: true });
  const decoder: Decoder = { child, waiting: null };
  const ended = (e: Error) => {
    if (spare === decoder) spare = null;
    decoder.waiting?.failed(e);
  };
  const unpacker = new Unpacker<Answer>((head, body) => decoder.waiting?.done(head, body));
  child.stdout!.on("data", (chunk: Buffer) => {
    try {
      unpacker.take(chunk);
    } catch (e) {
      ended(e as Error);
    }
  });
  // Writing to one that was killed fails; that it ended is told by `exit`.
  child.stdin!.on("error", () => {});
  child.on("error", ended);
  // Nothing else ends it before it has answered than a lack of memory.
  child.on("exit", () => ended(new Overrun("memory")));
  if (child.pid)
    try {
      setPriority(child.pid, NICE);
    } catch {
      // It may be refused; then it runs like everything else.
    }
  return decoder;
}

/** Whether this process stays as long as the decoder does. */
function hold(child: ChildProcess, held: boolean): void {
  const parts = [child, child.stdin, child.stdout] as unknown as { ref?(): void; unref?(): void }[];
  for (const part of parts) {
    if (held) part.ref?.();
    else part.unref?.();
  }
}

/** Resident memory of a process, bytes; 0 where the system has no place to read it from. */
function memoryOf({ pid }: ChildProcess): number {
  try {
    return Number(readFileSync(`/proc/${pid}/statm`, "latin1").split(" ")[1]) * PAGE;
  } catch {
    return 0;
  }
}

/** Processor time that a process has taken, s; null where the system has no place to read it from. */
function secondsOf({ pid }: ChildProcess): number | null {
  try {
    // The name before it, in brackets, may hold spaces: proc_pid_stat(5), fields 14 and 15.
    const fields = readFileSync(`/proc/${pid}/stat`, "latin1").split(") ")[1].split(" ");
    return (Number(fields[11]) + Number(fields[12])) / TICKS;
  } catch {
    return null;
  }
}

/** Ticks a second of /proc's clock: 100 on every Linux that runs Node.js. */
const TICKS = 100;
/** Size of a page of memory, bytes, on the machines that have /proc and run Node.js. */
const PAGE = 4096;
