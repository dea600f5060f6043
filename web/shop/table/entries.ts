import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { copyOf } from "@oaken/core/copy";
import type { Entry } from "@oaken/core/shop/column";
import { freshId, type Part, readEntry } from "@oaken/core/shop/parts";
import type { Fault } from "@oaken/core/shop/table";
import type { Kept } from "../../server/shop.ts";
import { api } from "../../ui/api.ts";

/** What a change did, so that it can be undone: the entry before it, and what the change is called. */
interface Done {
  id: string;
  before: Kept | null;
  what: string;
}

/** The entries of a part: shown at once as they are changed, kept by the server, undone one after another. */
export function useEntries(part: Part, first: readonly Kept[]) {
  const [kept, setKept] = useState<readonly Kept[]>(first);
  const [wrong, setWrong] = useState<string | null>(null);
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const [done, setDone] = useState<readonly Done[]>([]);
  /** changes on their way to the server */
  const [waiting, setWaiting] = useState(0);
  // Saves go one after another: each names the version that the one before it made.
  const line = useRef<Promise<unknown>>(Promise.resolve());
  const now = useRef(kept);
  const put = useCallback((next: readonly Kept[]) => {
    now.current = next;
    setKept(next);
  }, []);
  const show = useCallback(
    (k: Kept) => {
      const at = now.current.findIndex((o) => o.entry.id === k.entry.id);
      put(at < 0 ? [...now.current, k] : now.current.map((o, i) => (i === at ? k : o)));
    },
    [put],
  );

  /** Shows an entry as it is to be and sends it; back to what was where the server will not. */
  const send = useCallback(
    (entry: Entry, retired: boolean): Promise<boolean> => {
      const before = now.current.find((k) => k.entry.id === entry.id) ?? null;
      show({ entry, retired, version: before?.version ?? 0 });
      setWaiting((n) => n + 1);
      const turn = line.current.then(async () => {
        const base = now.current.find((k) => k.entry.id === entry.id)?.version ?? 0;
        try {
          const saved = await api<Kept>(`/api/shop/${part.id}`, { method: "PUT", json: { entry, retired, base } });
          const newest = now.current.find((k) => k.entry.id === entry.id)!;
          show({ ...newest, version: saved.version });
          setWrong(null);
          return true;
        } catch (e) {
          setWrong((e as Error).message);
          put(before ? now.current.map((k) => (k.entry.id === entry.id ? before : k)) : now.current.slice(0, -1));
          return false;
        } finally {
          setWaiting((n) => n - 1);
        }
      });
      line.current = turn;
      return turn;
    },
    [part, put, show],
  );

  const act = useCallback(
    (entry: Entry, retired: boolean, what: string) => {
      const before = now.current.find((k) => k.entry.id === entry.id) ?? null;
      setDone((d) => [...d, { id: entry.id, before, what }]);
      void send(entry, retired).then((isKept) => {
        if (!isKept) setDone((d) => d.slice(0, -1));
      });
    },
    [send],
  );

  useEffect(() => {
    if (waiting === 0) return;
    const stay = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener("beforeunload", stay);
    return () => window.removeEventListener("beforeunload", stay);
  }, [waiting]);

  const actions = useMemo(() => {
    const find = (id: string) => now.current.find((k) => k.entry.id === id)!;
    const taken = () => new Set(now.current.map((k) => k.entry.id));
    return {
      /** Sets a figure; what needs it or hangs on it follows. @throws Problem */
      set(id: string, key: string, value: unknown, label: string) {
        const k = find(id);
        const changed: Entry = { ...copyOf(k.entry), [key]: value };
        if (value === undefined) delete changed[key];
        const entry = readEntry(part, part.suited?.(changed) ?? changed);
        act(entry, k.retired, `${label.toLowerCase()} of ${entry.name}`);
      },
      /** @returns the new entry's id */
      add(like: Entry): string {
        const name = freshName(like.name, now.current);
        const entry = { ...copyOf(like), name, id: freshId(name, taken()) };
        act(entry, false, `add ${name}`);
        return entry.id;
      },
      retire(id: string, retired: boolean) {
        const { entry } = find(id);
        act(entry, retired, `${retired ? "put aside" : "bring back"} ${entry.name}`);
      },
      undo() {
        const last = done[done.length - 1];
        if (!last) return;
        setDone(done.slice(0, -1));
        // What was added is put aside again: jobs may know it already.
        const { entry, retired } = last.before ?? { ...find(last.id), retired: true };
        void send(entry, retired);
      },
      /** Puts an entry at the head: jobs begin with it. */
      async makeFirst(id: string) {
        try {
          await line.current;
          put(await api<Kept[]>(`/api/shop/${part.id}`, { method: "PATCH", json: { first: id } }));
          setWrong(null);
        } catch (e) {
          setWrong((e as Error).message);
        }
      },
      async take(file: File) {
        setFaults([]);
        setWrong(null);
        try {
          const said = await api<{ taken: number; faults: Fault[] }>(`/api/shop/${part.id}/file`, {
            method: "POST",
            body: file,
          });
          if (said.faults.length > 0) return setFaults(said.faults);
          setDone([]);
          put(await api<Kept[]>(`/api/shop/${part.id}`));
        } catch (e) {
          setWrong((e as Error).message);
        }
      },
      dismiss() {
        setFaults([]);
        setWrong(null);
      },
    };
  }, [act, done, part, put, send]);
  return { kept, isSaved: waiting === 0, wrong, faults, undoes: done[done.length - 1]?.what ?? null, actions };
}

/** A name unlike all others: the table is read by names. */
function freshName(name: string, kept: readonly Kept[]): string {
  const taken = new Set(kept.map((k) => k.entry.name));
  if (!taken.has(name)) return name;
  const stem = name.replace(/ \(\d+\)$/, "");
  for (let n = 2; ; n++) if (!taken.has(`${stem} (${n})`)) return `${stem} (${n})`;
}
