"use client";
import { useRef, useState } from "react";
import type { Mark } from "@oaken/core/cuts/kind";
import { cutKind } from "@oaken/core/cuts/register";
import { parsePlaces, showPlaces } from "@oaken/core/settings/places";
import { arrowMove } from "../../ui/arrows.ts";
import { useHeld } from "../../ui/held.ts";
import { useActions, useParts, useBenchStore } from "../context.tsx";
import { useCamera } from "../stage/camera.ts";
import { Crosshair } from "./drawn-gesture.tsx";
import { FocusHeld } from "./focus.ts";
import { ToolBar } from "./tool-bar.tsx";
import type { StageScene } from "../stage/scene.ts";

/** How each kind of mark is called, and added by hand. */
const HAND: Record<Mark["kind"], { kind: Mark["kind"]; tool: string; name: string; how: string }> = {
  tab: {
    kind: "tab",
    tool: "tabs",
    name: "tab",
    how: "Click an edge to add a tab; drag one to move it, Delete takes it away.",
  },
  pierce: {
    kind: "pierce",
    tool: "pierce",
    name: "pierce",
    how: "Drag a cross to where the torch should pierce; the lead follows.",
  },
  drill: {
    kind: "drill",
    tool: "drill",
    name: "hole",
    how: "Click to add a hole; drag one to move it, Delete takes it away.",
  },
};
/** A mark and a place kept by hand are the same within this, mm. */
const SAME = 0.6;
/** Arrow keys move a mark so far, mm; with Shift ten times as far. */
const NUDGE = 0.5;
const keyNudge = (e: React.KeyboardEvent) => arrowMove(e.key, e.shiftKey ? 10 * NUDGE : NUDGE);

const xyOf = ({ x, y }: { x: number; y: number }): [number, number] => [x, y];
const near = (m: { x: number; y: number }, [x, y]: readonly [number, number]): boolean =>
  Math.hypot(m.x - x, m.y - y) < SAME;

/** Tabs, pierces and holes of the selected cut, on the piece: seen, dragged, added and taken away. */
export function CutMarks({ scene }: { scene: StageScene }) {
  const { doc, built, selected, tool } = useParts("doc", "built", "selected", "tool");
  const store = useBenchStore();
  const { setting } = useActions();
  useCamera(scene);
  const svg = useRef<SVGSVGElement>(null);
  const [cursor, setCursor] = useState<{ x: number; y: number } | null>(null);
  const { drawn: shown, latest, set: setDrag } = useHeld<{ i: number; x: number; y: number } | null>(null);
  const cut = doc.cuts.find((c) => c.id === selected);
  const marks = built?.cuts.find((c) => c.id === selected)?.marks ?? [];
  const adding = tool?.part === selected ? Object.values(HAND).find((h) => h.tool === tool.id) : undefined;
  if (!cut || (marks.length === 0 && !adding)) return null;
  /** the setting that keeps the places of each kind of mark, where this cut has one */
  const fields = cutKind(cut.kind).handles.marks ?? {};
  const byHand = (h: (typeof HAND)[Mark["kind"]]) =>
    parsePlaces(String(cut.settings[fields[h.kind] ?? ""] ?? ""), h.name);
  const at = (e: { clientX: number; clientY: number }) => {
    const r = svg.current!.getBoundingClientRect();
    return scene.pick(e.clientX - r.left, e.clientY - r.top);
  };
  const keep = (h: (typeof HAND)[Mark["kind"]], places: readonly (readonly [number, number])[]) =>
    setting(cut.id, fields[h.kind]!, `${h.name} by hand`, places.length > 0 ? showPlaces(places) : undefined);
  const add = ({ x, y }: { x: number; y: number }) => {
    const ofTabs = marks.filter((m) => m.kind === "tab").map((m) => [m.x, m.y] as const);
    keep(adding!, [...(adding!.tool === "tabs" ? ofTabs : byHand(adding!)), [x, y]]);
  };
  /** Tabs are kept all together: one moved by hand makes its neighbours on the contour stay where they are. */
  const move = (i: number, to: { x: number; y: number } | null) => {
    const m = marks[i];
    const h = HAND[m.kind];
    const others =
      m.kind === "tab"
        ? marks.filter((q, k) => q.kind === "tab" && k !== i).map((q) => [q.x, q.y] as const)
        : byHand(h).filter((p) => !near(m, p));
    keep(h, to ? [...others, [to.x, to.y] as const] : others);
  };
  const movable = (m: Mark) =>
    fields[m.kind] !== undefined && (m.kind !== "drill" || byHand(HAND.drill).some((p) => near(m, p)));
  return (
    <>
      <svg
        ref={svg}
        className={`absolute inset-0 h-full w-full ${adding ? "cursor-crosshair" : "pointer-events-none"}`}
        role={adding ? "application" : "group"}
        tabIndex={adding ? 0 : -1}
        aria-label={
          `Places of ${cut.name}` + (adding ? `. ${adding.how} Arrows move a crosshair, Enter adds one there.` : "")
        }
        onClick={(e) => {
          const p = adding && e.target === svg.current ? at(e) : null;
          if (p) add(p);
        }}
        onKeyDown={(e) => {
          if (!adding) return;
          const way = keyNudge(e);
          const from = cursor ?? { x: doc.stock.width / 2, y: doc.stock.height / 2 };
          if (e.key === "Escape") store.setState({ tool: null });
          else if (way) setCursor({ x: from.x + way.dx, y: from.y + way.dy });
          else if (e.key === "Enter" || e.key === " ") add(from);
          else return;
          e.preventDefault();
          e.stopPropagation();
        }}
      >
        {marks.map((m, i) => {
          const here = shown?.i === i ? shown : m;
          const p = scene.eye.project(here.x, here.y, 0);
          const can = movable(m);
          return (
            <g
              key={`${m.kind}${i}`}
              transform={`translate(${p.x} ${p.y})`}
              tabIndex={can ? 0 : -1}
              role={can ? "button" : "img"}
              aria-label={`${HAND[m.kind].name} at x ${m.x.toFixed(1)}, y ${m.y.toFixed(1)} mm`}
              className={can ? "pointer-events-auto cursor-move outline-none focus-visible:opacity-60" : ""}
              onPointerDown={(e) => {
                if (!can) return;
                e.stopPropagation();
                e.currentTarget.setPointerCapture(e.pointerId);
                setDrag({ i, x: m.x, y: m.y });
              }}
              onPointerMove={(e) => {
                const q = latest.current?.i === i ? at(e) : null;
                if (q) setDrag({ i, x: q.x, y: q.y });
              }}
              onPointerUp={() => {
                const drag = latest.current;
                if (drag && Math.hypot(drag.x - m.x, drag.y - m.y) > 0.05) move(i, drag);
                setDrag(null);
              }}
              onPointerCancel={() => setDrag(null)}
              onKeyDown={(e) => {
                const way = keyNudge(e);
                if (e.key === "Delete" || e.key === "Backspace") move(i, null);
                else if (way) move(i, { x: m.x + way.dx, y: m.y + way.dy });
                else return;
                e.preventDefault();
                e.stopPropagation();
              }}
            >
              <circle r="11" fill="transparent" />
              {m.kind === "tab" && (
                <rect x="-7" y="-3.5" width="14" height="7" rx="2" fill="#f2d45c" stroke="#23423a" strokeWidth="1.5" />
              )}
              {m.kind === "pierce" && <path d="M-5 -5L5 5M5 -5L-5 5" stroke="#23423a" strokeWidth="4.5" />}
              {m.kind === "pierce" && <path d="M-5 -5L5 5M5 -5L-5 5" stroke="#f2d45c" strokeWidth="2.2" />}
              {m.kind === "drill" && <circle r="5" fill="none" stroke="#f2d45c" strokeWidth="2.2" />}
            </g>
          );
        })}
        {adding && cursor && <Crosshair at={xyOf(scene.eye.project(cursor.x, cursor.y, 0))} />}
        {adding && <FocusHeld element={svg} />}
      </svg>
      {adding && (
        <ToolBar how={adding.how} at={cursor ? `x ${cursor.x.toFixed(1)}, y ${cursor.y.toFixed(1)} mm` : ""} />
      )}
    </>
  );
}
