import { subscribeWithSelector } from "zustand/middleware";
import { createStore } from "zustand/vanilla";
import { boardJob, putBoard } from "@oaken/core/job/boards";
import type { BoardJob, JobDocument } from "@oaken/core/job/document";
import { lockFault } from "@oaken/core/job/lock";
import type { Gives } from "@oaken/core/makings/product";
import { makingKind } from "@oaken/core/makings/register";
import type { SectionLine } from "@oaken/core/proof/section";
import { type Light, USUAL_LIGHT } from "@oaken/core/proof/shading";
import type { Setting } from "@oaken/core/settings/fields";
import type { Unit } from "@oaken/core/units";
import { shownOf } from "../compute/shown.ts";
import type { Built, DrawnRings, DrawnSurface, DrawnTone } from "../compute/messages.ts";
import { sharing } from "./sharing.ts";
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
  /** the whole document, as it is saved */
  whole: JobDocument;
  /** the same on the board that is shown: what the bench works on */
  doc: BoardJob;
  /** newest revision known to be on the server */
  revision: number;
  written: number | null;
  save: { state: "saved" | "waiting" | "saving" | "failed" | "stale"; at: Date | null; message?: string };
  past: Step[];
  future: Step[];
  /** id of a making or cut, or "stock" */
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
  /** whether the playhead runs, and how much faster than the machine */
  playing: boolean;
  speed: number;
  scrubbed: DrawnSurface | null;
  /** the stage's tool in hand, and the part it sets */
  tool: { id: string; part: string } | null;
  colouring: Colouring;
  glow: Glow;
  light: Light;
  section: SectionAt | null;
  /** what is under the pointer */
  spot: Spot | null;
  /** where picture and proof part on the stage, px from its left */
  wipe: number | null;
  /** what lies over the bench */
  sheet: "keys" | "history" | null;
  /** grows each time that all of the stock is to be shown */
  fits: number;
  /** a place the stage flies to, mm */
  target: { x: number; y: number; n: number } | null;
}

/** A state of the document to go back to, and the board that was shown then. */
interface Step {
  whole: JobDocument;
  board: string;
  name: string;
}

/** How much faster than the machine the playhead runs at first. */
const USUAL_SPEED = 50;

/** A save that failed is tried again after this time, ms. */
const RETRY = 4000;

/**
 * Changes with the same name within this time are one step of undo, ms; those of one gesture are, however long it
 * takes.
 */
const JOIN = 900;

/** The build with what is shown of it: what the selection is about. */
export function showing(built: Built | null, doc: BoardJob, selected: string): Built | null {
  return built && { ...built, shown: shownOf(built.makings, doc, selected) };
}

/** How the proof is coloured. */
export type Colouring = (typeof COLOURINGS)[number];
export const COLOURINGS = ["material", "depth", "cut", "left", "glow"] as const;

/** Light on a sheet that is lit from behind: the lamp's strength and the room's own light, 0 to 1 each. */
export interface Glow {
  lamp: number;
  room: number;
}

/** A place of the stock: mm, its depth, and the cut that made it, 0 for none and k for the k-th. */
export interface Spot {
  x: number;
  y: number;
  z: number;
  by: number;
}

/** Where the piece is cut open, and the place in it that is pointed at, as a share of its length. */
export interface SectionAt {
  line: SectionLine;
  share: number | null;
}

/** A layer counts as shown above this. */
export const SHOWN = 0.01;

/** The layers that show each kind of product best. */
export const LAYERS: Record<Gives, Mixer> = {
  raster: { picture: 1, outline: 0, paths: 0, proof: 0 },
  grey: { picture: 1, outline: 0, paths: 0, proof: 0 },
  heights: { picture: 0, outline: 0, paths: 0, proof: 1 },
  shapes: { picture: 0.35, outline: 1, paths: 0, proof: 0.25 },
};

/** What each selection shows best. */
export function mixerFor(doc: BoardJob, selected: string): Mixer {
  const making = doc.makings.find((n) => n.id === selected);
  if (making) return { ...LAYERS[makingKind(making.kind).gives] };
  return { picture: 0, outline: 0, paths: 0, proof: 1 };
}

/** What the slip shows at first: words that nobody has written yet, the height that others take, or the main cut. */
function firstSelected({ makings, cuts, kept }: BoardJob): string {
  const words = makings.find((m) => m.kind === "lettering" && m.settings.text === undefined);
  const height = kept && makings[makings.length - 1];
  return (words ?? height ?? cuts.find((c) => !c.target))?.id ?? "stock";
}

export function createBench(id: string, whole: JobDocument, revision: number, written: number | null) {
  const doc = boardJob(whole);
  const first = firstSelected(doc);
  const beginning = (): BenchState => ({
    id,
    whole,
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
    playing: false,
    speed: USUAL_SPEED,
    scrubbed: null,
    tool: null,
    // A sheet that is to glow is looked at with its lamp on.
    colouring: doc.makings.some((m) => makingKind(m.kind).glows) ? "glow" : "material",
    glow: { lamp: 0.8, room: 0.02 },
    light: USUAL_LIGHT,
    section: null,
    spot: null,
    wipe: null,
    sheet: null,
    fits: 0,
    target: null,
  });
  const store = createStore<BenchState>()(subscribeWithSelector(beginning));
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
    const what = unanswered ?? { doc: get().whole, base: get().revision, summary };
    set({ save: { ...now, state: "saving" } });
    try {
      const card = await api<{ revision: number }>(`/api/jobs/${id}`, {
        method: "PUT",
        json: { base: what.base, document: what.doc, summary: what.summary },
      });
      unanswered = null;
      const newer = get().whole !== what.doc;
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

  /** Takes the bench to a state of the document, on a board of it. */
  const goTo = (next: JobDocument, board: string, rest: Partial<BenchState>) => {
    const doc = boardJob(next, board);
    set({ whole: next, doc, live: null, liveTone: null, playhead: null, scrubbed: null, ...rest });
    // What is selected may have gone with the change.
    const { selected } = get();
    if (selected !== "stock" && ![...doc.makings, ...doc.cuts].some((p) => p.id === selected)) actions.select("stock");
  };

  const actions = {
    /**
     * Every change on the board that is shown goes through here, under the name that undo shows.
     * @param gesture names one way of a slider: all its changes are one step of undo, at whatever pace the page keeps
     * up
     */
    change(name: string, edit: (d: BoardJob) => void, gesture?: string): void {
      actions.changeWhole(
        name,
        (whole, board) => {
          const job = boardJob(whole, board);
          edit(job);
          putBoard(whole, job);
        },
        gesture,
      );
    },
    /** Every change of the document; the edit may say which board is shown after it. */
    changeWhole(name: string, edit: (d: JobDocument, board: string) => string | void, gesture?: string): void {
      const { whole, doc, past, live, liveTone } = get();
      const edited = structuredClone(whole);
      const board = edit(edited, doc.board.id) ?? doc.board.id;
      // Parts that are as they were stay the same objects: what shows them alone is left alone.
      const next = sharing(whole, edited);
      if (next === whole) return;
      const fault = lockFault(whole, next);
      if (fault) return set({ failed: fault });
      const now = Date.now();
      const joins =
        past.length > 0 &&
        past[past.length - 1].name === name &&
        (gesture !== undefined ? gesture === lastGesture : now - lastChange < JOIN);
      lastGesture = gesture;
      lastChange = now;
      const step = { whole, board: doc.board.id, name };
      goTo(next, board, { past: joins ? past : [...past.slice(-199), step], future: [], live, liveTone });
      saveSoon(name);
    },
    undo(): void {
      const { past, future, whole, doc } = get();
      const last = past[past.length - 1];
      if (!last) return;
      lastChange = 0;
      lastGesture = undefined;
      const step = { whole, board: doc.board.id, name: last.name };
      goTo(last.whole, last.board, { past: past.slice(0, -1), future: [...future, step] });
      saveSoon(`undo ${last.name}`);
    },
    redo(): void {
      const { past, future, whole, doc } = get();
      const next = future[future.length - 1];
      if (!next) return;
      lastChange = 0;
      lastGesture = undefined;
      const step = { whole, board: doc.board.id, name: next.name };
      goTo(next.whole, next.board, { future: future.slice(0, -1), past: [...past, step] });
      saveSoon(`redo ${next.name}`);
    },
    /** Shows another board of the job. */
    showBoard(id: string): void {
      const { whole, doc } = get();
      if (id === doc.board.id) return actions.select("stock");
      lastChange = 0;
      goTo(whole, id, { built: null, failed: null });
      actions.select("stock");
    },
    /** A setting of a making or cut; undefined goes back to automatic. */
    setting(part: string, key: string, label: string, value: Setting | undefined, gesture?: string): void {
      actions.change(
        label,
        (d) => {
          const p = [...d.makings, ...d.cuts].find((q) => q.id === part)!;
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
