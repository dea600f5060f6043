/** Parts that are not loaded yet. */
const waiting = new Map<object, () => Promise<void>>();

/**
 * Functions of a file that is loaded where their work is done, and not where only settings are shown: the page of a job
 * knows every kind of cut and making, but plans none.
 * @param load such as `() => import("./plan.ts")`
 * @returns from a function's name, that function; it throws before {@link loaded} has come to its end
 */
export function later<M extends object>(load: () => Promise<M>): <K extends keyof M>(name: K) => M[K] {
  let part: M | null = null;
  waiting.set(load, async () => {
    part = await load();
    waiting.delete(load);
  });
  return <K extends keyof M>(name: K): M[K] => {
    const call = (...args: unknown[]): unknown => {
      if (!part) throw new Error(`${String(name)} was called before it was loaded.`);
      return (part[name] as (...args: unknown[]) => unknown)(...args);
    };
    return call as M[K];
  };
}

/** Loads all that was put off so far: to be awaited before anything is computed. */
export async function loaded(): Promise<void> {
  await Promise.all([...waiting.values()].map((load) => load()));
}
