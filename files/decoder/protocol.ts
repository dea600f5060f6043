import type { Shop } from "@oaken/core/shop/shop";

/**
 * What is said between a process and its decoder, over the decoder's input and output: a head of one line of JSON, then
 * as many bytes as the head says.
 */
export type Ask =
  /** a picture, decoded: the bytes behind the head, or the file at `path` */
  | { do: "picture"; name: string; path?: string; bytes: number }
  /** whether a PNG is whole and no larger than `side` pixels either way */
  | { do: "thumb"; side: number; bytes: number }
  /** a job file at `path`, taken apart: its pictures are written into `folder` under their SHA-256 */
  | { do: "job"; path: string; folder: string; shop: Shop; bytes: 0 };

export type Answer =
  | { is: "picture"; width: number; height: number; wide: boolean; bytes: number }
  | { is: "fine"; bytes: 0 }
  | { is: "job"; document: object; pictures: { sha: string; name: string }[]; bytes: 0 }
  | { is: "problem"; code: string; message: string; bytes: 0 };

/** Largest head, bytes: a job's document fits in it. */
const MOST_HEAD = 32 << 20;

/** Takes a stream apart into heads and the bytes behind each. */
export class Unpacker<Head extends { bytes: number }> {
  private line: Buffer[] = [];
  private lineBytes = 0;
  private head: Head | null = null;
  private body = Buffer.alloc(0);
  private filled = 0;
  constructor(private readonly whole: (head: Head, body: Buffer) => void) {}

  take(chunk: Buffer): void {
    while (chunk.length > 0) {
      if (!this.head) {
        const end = chunk.indexOf(10);
        const part = end < 0 ? chunk : chunk.subarray(0, end);
        this.line.push(part);
        this.lineBytes += part.length;
        if (this.lineBytes > MOST_HEAD) throw new Error("The decoder said too much.");
        if (end < 0) return;
        chunk = chunk.subarray(end + 1);
        this.head = JSON.parse(Buffer.concat(this.line).toString("utf8")) as Head;
        this.line = [];
        this.lineBytes = 0;
        // Filled as it arrives: putting hundreds of megabytes together at the end would hold up everything else.
        this.body = Buffer.allocUnsafeSlow(this.head.bytes);
        this.filled = 0;
      } else {
        const part = chunk.subarray(0, this.head.bytes - this.filled);
        part.copy(this.body, this.filled);
        this.filled += part.length;
        chunk = chunk.subarray(part.length);
      }
      if (this.head && this.filled === this.head.bytes) {
        const { head, body } = this;
        this.head = null;
        this.body = Buffer.alloc(0);
        this.whole(head, body);
      }
    }
  }
}

export const headLine = (head: Ask | Answer): string => `${JSON.stringify(head)}\n`;
