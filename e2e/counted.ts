import type { Page } from "playwright-core";

/** What has passed on a page since it was last asked. */
export interface Counts {
  /** components rendered, and the commits in which they were */
  components: number;
  commits: number;
  /** bytes of arrays that came from the workers and that went to them */
  fromWorkers: number;
  toWorkers: number;
  /** drawings of the 3D scene: calls that put triangles or lines on the canvas, frame by frame */
  frames: number;
}

interface Fiber {
  tag: number;
  flags: number;
  child: Fiber | null;
  sibling: Fiber | null;
  alternate: Fiber | null;
}

/**
 * Counts from now on what the page renders, draws and passes between its threads; before the page is loaded. Nothing
 * in the application takes part: React tells its commits to whatever stands where its developer tools would, and the
 * browser's own Worker and WebGL are wrapped.
 */
export async function countOn(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const counts = { components: 0, commits: 0, fromWorkers: 0, toWorkers: 0, frames: 0 };
    const w = window as unknown as Record<string, unknown>;
    w.oakenCounts = counts;
    // A fibre of these kinds is a component's (function, class, forwarded, memo), in React's own numbers.
    const component = new Set([0, 1, 11, 14, 15]);
    const PERFORMED_WORK = 1;
    const walk = (next: Fiber, before: Fiber | null): void => {
      if (component.has(next.tag) && (before === null || next.flags & PERFORMED_WORK)) counts.components++;
      if (before !== null && next.child === before.child) return;
      for (let c = next.child; c; c = c.sibling) {
        // A child that was left alone is the very same as before.
        const isSame = before !== null && sameChild(before, c);
        if (!isSame) walk(c, c.alternate);
      }
    };
    const sameChild = (parent: Fiber, child: Fiber): boolean => {
      for (let c = parent.child; c; c = c.sibling) if (c === child) return true;
      return false;
    };
    w.__REACT_DEVTOOLS_GLOBAL_HOOK__ = {
      supportsFiber: true,
      isDisabled: false,
      renderers: new Map(),
      checkDCE: () => {},
      inject: () => 1,
      onCommitFiberUnmount: () => {},
      onPostCommitFiberRoot: () => {},
      onCommitFiberRoot: (_: number, root: { current: Fiber }) => {
        counts.commits++;
        walk(root.current, root.current.alternate);
      },
    };
    const bytesIn = (value: unknown, seen: Set<unknown>): number => {
      if (value === null || typeof value !== "object" || seen.has(value)) return 0;
      seen.add(value);
      if (value instanceof ArrayBuffer) return value.byteLength;
      if (ArrayBuffer.isView(value)) return bytesIn(value.buffer, seen);
      const parts = value instanceof Map ? [...value.values()] : Object.values(value);
      return parts.reduce((sum: number, part) => sum + bytesIn(part, seen), 0);
    };
    const Plain = Worker;
    w.Worker = class extends Plain {
      constructor(url: string | URL, options?: WorkerOptions) {
        super(url, options);
        this.addEventListener("message", (e) => {
          counts.fromWorkers += bytesIn(e.data, new Set());
        });
      }
      override postMessage(message: unknown, rest?: StructuredSerializeOptions | Transferable[]): void {
        counts.toWorkers += bytesIn(message, new Set());
        super.postMessage(message, rest as StructuredSerializeOptions);
      }
    };
    let drawnAt = -1;
    const count = () => {
      const at = document.timeline.currentTime as number;
      if (at !== drawnAt) counts.frames++;
      drawnAt = at;
    };
    for (const name of ["drawElements", "drawArrays"] as const) {
      const plain = WebGL2RenderingContext.prototype[name] as (...args: number[]) => void;
      WebGL2RenderingContext.prototype[name] = function (this: WebGL2RenderingContext, ...args: number[]) {
        count();
        plain.apply(this, args);
      } as never;
    }
  });
}

/** What was counted since the last call; what is counted begins anew. */
export function counted(page: Page): Promise<Counts> {
  return page.evaluate(() => {
    const all = (window as unknown as { oakenCounts: Counts }).oakenCounts;
    const now = { ...all };
    for (const key of Object.keys(all) as (keyof Counts)[]) all[key] = 0;
    return now;
  });
}
