import { createStore } from "zustand/vanilla";
import type { JobDocument } from "@oaken/core/job/document";
import type { Gives } from "@oaken/core/makings/product";
import { makingKind } from "@oaken/core/makings/register";
import type { Setting } from "@oaken/core/settings/fields";
import type { Unit } from "@oaken/core/units";
import { shownOf } from "../compute/shown.ts";
import type { Built, DrawnRings, DrawnSurface, DrawnTone } from "../compute/messages.ts";
import { api, Refused } from "../ui/api.ts";
import { rememberedUnit, rememberUnit } from "../ui/unit.ts";

/** How strongly each of the stage's four layers shows, 0…1. */
export interface Mixer {
  picture: number;
  outline: number;
  paths: number;
  proof: number;
}

export interface BenchState {
  id: string;
  doc: JobDocument;
  /** newest revision known to be on the server */
  revision: number;
  written: number | null;
  save: { state: "saved" | "waiting" | "saving" | "failed" | "stale"; at: Date | null; message?: string };
  past: { doc: JobDocument; name: string }[];
  future: { doc: JobDocument; name: string }[];
  /** id of a node or cut, or "stock" */
  selected: string;
  unit: Unit;
  mixer: Mixer;
  tilt: number;
  view: "bench" | "write";
  built: Built | null;
  /** contours that follow a moving slider, until the next build */
  live: DrawnRings | null;
  /** the tone that follows a moving slider */
  liveTone: DrawnTone | null;
  working: { step: string; share: number } | null;
  failed: string | null;
  /** playhead in seconds of cutting, or null at the end with everything done */
  playhead: number | null;
  scrubbed: DrawnSurface | null;
  /** the stage's tool in hand, and the part it sets */
  tool: { id: string; part: string } | null;
  colouring: Colouring;
  /** a place the stage flies to, mm */
  target: { x: number; y: number; n: number } | null;
}

/** A save that failed is tried again after this time, ms. */
const RETRY = 4000;

/**
 * Changes with the same name within this time are one step of undo, ms; those of one gesture are, however long it
 * takes.
 */
const JOIN = 900;

/** The build with what is shown of it: what the selection is about. */
export function showing(built: Built | null, doc: JobDocument, selected: string): Built | null {
  return built && { ...built, shown: shownOf(built.makings, doc, selected) };
}

/** How the proof is coloured. */
export type Colouring = "material" | "depth" | "cut" | "left";

/** The layers that show each kind of product best. */
export const LAYERS: Record<Gives, Mixer> = {
  raster: { picture: 1, outline: 0, paths: 0, proof: 0 },
  grey: { picture: 1, outline: 0, paths: 0, proof: 0 },
  shapes: { picture: 0.35, outline: 1, paths: 0, proof: 0.25 },
};

/** What each selection shows best. */
export function mixerFor(doc: JobDocument, selected: string): Mixer {
  const node = doc.nodes.find((n) => n.id === selected);
  if (node) return { ...LAYERS[makingKind(node.kind).gives] };
  return { picture: 0, outline: 0, paths: 0, proof: 1 };
}

export function createBench(id: string, doc: JobDocument, revision: number, written: number | null) {
  const first = doc.cuts.find((c) => !c.target)?.id ?? "stock";
  const store = createStore<BenchState>(() => ({
    id,
    doc,
    revision,
    written,
    save: { state: "saved", at: new Date() },
    past: [],
    future: [],
    selected: first,
    unit: rememberedUnit(),
    mixer: mixerFor(doc, first),
    tilt: 0,
    view: "bench",
    built: null,
    live: null,
    liveTone: null,
    working: null,
    failed: null,
    playhead: null,
    scrubbed: null,
    tool: null,
    colouring: "material",
    target: null,
  }));
  const { getState: get, setState: set } = store;
  let lastChange = 0;
  let lastGesture: string | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let summary = "";
  /** one save at a time: the next must name the revision that this one makes */
  let sending = false;
  /** a save that no answer came to: it may have been kept, so it goes out again as it was before anything newer */
  let unanswered: { doc: JobDocument; base: number; summary: string } | null = null;

  const saveSoon = (what: string) => {
    summary = what;
    if (get().save.state === "stale") return;
    set({ save: { ...get().save, state: "waiting" } });
    clearTimeout(timer);
    timer = setTimeout(save, 700);
  };

  async function save(): Promise<void> {
    clearTimeout(timer);
    const now = get().save;
    // A save on its way looks for newer changes when it is done.
    if (now.state === "stale" || sending) return;
    sending = true;
    const what = unanswered ?? { doc: get().doc, base: get().revision, summary };
    set({ save: { ...now, state: "saving" } });
    try {
      const card = await api<{ revision: number }>(`/api/jobs/${id}`, {
        method: "PUT",
        json: { base: what.base, document: what.doc, summary: what.summary },
      });
      unanswered = null;
      const newer = get().doc !== what.doc;
      set({ revision: card.revision, save: { state: newer ? "waiting" : "saved", at: new Date() } });
      if (newer) timer = setTimeout(save, 300);
    } catch (e) {
      const code = e instanceof Refused ? e.code : "offline";
      unanswered = code === "offline" ? what : null;
      set({ save: { state: code === "stale" ? "stale" : "failed", at: get().save.at, message: (e as Error).message } });
      if (code !== "stale") timer = setTimeout(save, RETRY);
    } finally {
      sending = false;
    }
  }

  const actions = {
    /**
     * Every change of the document goes through here, under the name that undo shows.
     * @param gesture names one way of a slider: all its changes are one step of undo, at whatever pace the page keeps
     * up
     */
    change(name: string, edit: (d: JobDocument) => void, gesture?: string): void {
      const { doc, past } = get();
      const next = structuredClone(doc);
      edit(next);
      // What is selected may have gone with the change.
      if (![...next.nodes, ...next.cuts].some((p) => p.id === get().selected) && get().selected !== "stock")
        actions.select("stock");
      if (JSON.stringify(next) === JSON.stringify(doc)) return;
      const now = Date.now();
      const joins =
        past.length > 0 &&
        past[past.length - 1].name === name &&
        (gesture !== undefined ? gesture === lastGesture : now - lastChange < JOIN);
      lastGesture = gesture;
      lastChange = now;
      set({
        doc: next,
        past: joins ? past : [...past.slice(-199), { doc, name }],
        future: [],
        playhead: null,
        scrubbed: null,
      });
      saveSoon(name);
    },
    undo(): void {
      const { past, future, doc } = get();
      const last = past[past.length - 1];
      if (!last) return;
      lastChange = 0;
      lastGesture = undefined;
      set({
        doc: last.doc,
        past: past.slice(0, -1),
        future: [...future, { doc, name: last.name }],
        live: null,
        liveTone: null,
        playhead: null,
        scrubbed: null,
      });
      saveSoon(`undo ${last.name}`);
    },
    redo(): void {
      const { past, future, doc } = get();
      const next = future[future.length - 1];
      if (!next) return;
      lastChange = 0;
      lastGesture = undefined;
      set({
        doc: next.doc,
        future: future.slice(0, -1),
        past: [...past, { doc, name: next.name }],
        live: null,
        liveTone: null,
        playhead: null,
        scrubbed: null,
      });
      saveSoon(`redo ${next.name}`);
    },
    /** A setting of a node or cut; undefined goes back to automatic. */
    setting(part: string, key: string, label: string, value: Setting | undefined, gesture?: string): void {
      actions.change(
        label,
        (d) => {
          const p = [...d.nodes, ...d.cuts].find((q) => q.id === part)!;
          if (value === undefined) delete p.settings[key];
          else p.settings[key] = value;
        },
        gesture,
      );
    },
    unit(unit: Unit): void {
      rememberUnit(unit);
      set({ unit });
    },
    select(selected: string): void {
      set({
        selected,
        mixer: mixerFor(get().doc, selected),
        tool: null,
        built: showing(get().built, get().doc, selected),
      });
    },
    save,
  };
  return { store, actions };
}

export type Bench = ReturnType<typeof createBench>;
