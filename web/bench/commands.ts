"use client";
import { useEffect } from "react";
import { tinykeys } from "tinykeys";
import { isPlan } from "./stage/tilt.ts";
import { type Bench, type BenchState, type Mixer, SHOWN } from "./store.ts";

/** Something the bench does at a key, from a menu or by a button. */
export interface Command {
  /** what it does, as the help, menus and buttons say it */
  title: string;
  /** its key as people know it */
  key: string;
  /** the same as `tinykeys` reads it; more than one where keyboards differ */
  bound: readonly string[];
  /** also while a field has the focus */
  isForTyping?: boolean;
  /** a button that has the focus keeps this key for itself */
  isForButtons?: boolean;
  run(bench: Bench): void;
}

const layer = (k: keyof Mixer, key: string): Command => ({
  title: `show or hide the ${k}`,
  key,
  bound: [key],
  run({ store }) {
    const { mixer } = store.getState();
    store.setState({ mixer: { ...mixer, [k]: mixer[k] > SHOWN ? 0 : 1 } });
  },
});
/** How far T tilts the stage, as a share of the lowest view. */
const TILTED = 0.75;

/** Sets parts of the state, some of them from the state as it is. */
const set =
  (next: (s: BenchState) => Partial<BenchState>): Command["run"] =>
  ({ store }) =>
    store.setState(next(store.getState()));

/** Everything that has a key. One table: keys, help, menus and buttons all read it. */
export const COMMANDS = {
  undo: {
    title: "undo",
    key: "Ctrl Z",
    bound: ["$mod+z"],
    run: ({ actions }) => actions.undo(),
  },
  redo: {
    title: "redo",
    key: "Ctrl Shift Z",
    bound: ["$mod+Shift+z", "$mod+y"],
    run: ({ actions }) => actions.redo(),
  },
  save: {
    title: "save now (saving is automatic)",
    key: "Ctrl S",
    bound: ["$mod+s"],
    isForTyping: true,
    run: ({ actions }) => void actions.save(),
  },
  play: {
    title: "play or pause the cutting",
    key: "Space",
    bound: ["Space"],
    isForButtons: true,
    run: set((s) => ({ playing: s.built !== null && !s.playing })),
  },
  fit: { title: "show the whole stock", key: "F", bound: ["f"], run: set((s) => ({ fits: s.fits + 1 })) },
  tilt: {
    title: "straight above, or tilted",
    key: "T",
    bound: ["t"],
    run: set((s) => ({ tilt: isPlan(s.tilt) ? TILTED : 0 })),
  },
  picture: layer("picture", "1"),
  outline: layer("outline", "2"),
  paths: layer("paths", "3"),
  proof: layer("proof", "4"),
  unit: {
    title: "millimetres or inches",
    key: "U",
    bound: ["u"],
    run: ({ store, actions }) => actions.unit(store.getState().unit === "mm" ? "in" : "mm"),
  },
  write: {
    title: "write programs, or back to the bench",
    key: "W",
    bound: ["w"],
    run: set((s) => ({ view: s.view === "write" ? "bench" : "write" })),
  },
  putAway: { title: "put the tool away", key: "Esc", bound: ["Escape"], run: set(() => ({ tool: null })) },
  keys: { title: "this list", key: "?", bound: ["Shift+?", "?"], run: set(() => ({ sheet: "keys" })) },
} satisfies Record<string, Command>;

/** Keys that belong to what has the focus, as the help shows them. */
export const FOCUS_KEYS: readonly (readonly [string, string])[] = [
  ["Arrows + −", "on the stage: move and zoom it"],
  ["Arrows", "on a mark, handle or tool's place: move it; Shift for ten steps, Delete takes it away"],
  ["Enter", "with a tool in hand: put it down at the crosshair, take it up again"],
  ["↑ ↓", "in a field: step its value; Shift for ten steps, Alt for a tenth"],
  ["M", "on a cut's grip: take it, arrows move it, M again puts it down"],
];

/** A button's hint: what it does, and its key. */
export const hint = ({ title, key }: Command, said = title): string =>
  `${said[0].toUpperCase()}${said.slice(1)} (${key})`;

const isTyping = (at: EventTarget | null): boolean =>
  at instanceof HTMLElement && (at.tagName === "INPUT" || at.tagName === "TEXTAREA" || at.isContentEditable);

/** Binds every command's keys while the bench is open. */
export function useKeys(bench: Bench): void {
  useEffect(() => {
    const bindings = Object.values<Command>(COMMANDS).flatMap((c) =>
      c.bound.map((key) => [
        key,
        (e: KeyboardEvent) => {
          // A menu that closes at Escape has had it already.
          if (e.defaultPrevented || (isTyping(e.target) && !c.isForTyping)) return;
          if (e.target instanceof HTMLButtonElement && c.isForButtons) return;
          e.preventDefault();
          c.run(bench);
        },
      ]),
    );
    return tinykeys(window, Object.fromEntries(bindings) as Record<string, (e: KeyboardEvent) => void>);
  }, [bench]);
}
