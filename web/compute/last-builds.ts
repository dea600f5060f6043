import { createStore, delMany, get, keys, setMany } from "idb-keyval";
import { keyOf, named } from "@oaken/core/kept";
import type { BoardJob } from "@oaken/core/job/document";
import type { Packed } from "./messages.ts";

/** Jobs whose last build is kept: each takes some 10 MB of the browser's storage. */
const MOST = 8;
/** Under this name stand the names of what is kept, the newest first. */
const ORDER = "order";

/** Where things are kept by name, from one visit to the next. */
export interface Shelf {
  get<T>(name: string): Promise<T | undefined>;
  names(): Promise<string[]>;
  /** puts several things there, all or none */
  set(things: [string, unknown][]): Promise<void>;
  remove(names: string[]): Promise<void>;
}

/**
 * What was built last of some jobs, whole, as the page draws it: a job that is opened again shows its proof at once,
 * while the worker builds it anew for what is changed next. A browser that keeps nothing has nothing to show.
 */
export class LastBuilds {
  /** @param application which one builds: another may compute differently */
  constructor(
    private readonly shelf: Shelf,
    private readonly application: string,
  ) {}

  /** The last build of exactly this job; null where none is kept. */
  async of(job: BoardJob): Promise<Packed | null> {
    try {
      return (await this.shelf.get<Packed>(this.nameOf(job))) ?? null;
    } catch {
      return null;
    }
  }

  /**
   * Keeps a build; lets go of what is older or was built by another application.
   * @param build gives it with all that it is drawn from; not asked where it is kept already
   */
  async keep(job: BoardJob, build: () => Packed): Promise<void> {
    try {
      const { shelf } = this;
      const name = this.nameOf(job);
      const names = await shelf.names();
      const known = ((await shelf.get<string[]>(ORDER)) ?? []).filter((n) => n !== name && names.includes(n));
      const order = [name, ...known.filter((n) => n.startsWith(this.application))].slice(0, MOST);
      await shelf.remove(names.filter((n) => n !== ORDER && !order.includes(n)));
      const things: [string, unknown][] = [[ORDER, order]];
      if (!names.includes(name)) things.push([name, build()]);
      await shelf.set(things);
    } catch {
      // Full, or forbidden: the job is built again when it is opened.
    }
  }

  private nameOf(job: BoardJob): string {
    return `${this.application} ${named(keyOf(job))}`;
  }
}

/**
 * Those that this browser keeps.
 * @param application its name; none while it is developed, where what computes changes under the same name
 */
export function lastBuildsHere(application: string | undefined): LastBuilds | null {
  if (!application) return null;
  const store = createStore("oaken-last-builds", "builds");
  const shelf = {
    get: <T>(name: string) => get<T>(name, store),
    names: () => keys<string>(store),
    set: (things: [string, unknown][]) => setMany(things, store),
    remove: (names: string[]) => delMany(names, store),
  };
  return new LastBuilds(shelf, application);
}
