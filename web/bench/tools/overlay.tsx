"use client";
import { useEffect, useRef, useState } from "react";
import { Check, X } from "lucide-react";
import { cropBox } from "@oaken/core/picture/frame";
import { Toggle } from "../../ui/toggle.tsx";
import { LengthField } from "../../ui/length-field.tsx";
import { useActions, useParts, useBenchStore } from "../context.tsx";
import { useCamera } from "../stage/camera.ts";
import type { StageScene } from "../stage/scene.ts";
import { pickColour } from "./pick-colour.ts";
import { aboutOf } from "@oaken/core/job/graph";
import { spaceOf } from "./space.ts";
import { toolById } from "./tools.ts";

/** Where the handles stand before anyone has dragged them: this share of the picture inside it. */
const INSET = 0.08;

/** The tool in hand: an overlay that takes the pointer, and a bar that says how it is used. */
export function ToolOverlay({ scene }: { scene: StageScene }) {
  const { tool, built, doc, unit } = useParts("tool", "built", "doc", "unit");
  const store = useBenchStore();
  const { change } = useActions();
  useCamera(scene);
  const svg = useRef<SVGSVGElement>(null);
  const [points, setPoints] = useState<number[]>([]);
  const [mode, setMode] = useState("");
  const [brush, setBrush] = useState(12);
  const [measured, setMeasured] = useState<number | null>(null);
  const space = spaceOf(built);
  const kind = tool && toolById(tool.id);
  const current = kind?.modes?.some((m) => m.value === mode) ? mode : (kind?.modes?.[0].value ?? "");
  const gesture =
    tool?.id === "measure"
      ? "drag"
      : tool?.id === "colours"
        ? "click"
        : (kind?.modes?.find((m) => m.value === current)?.gesture ?? kind?.gesture);
  const drag = useRef<number | null>(null);

  useEffect(() => {
    setPoints([]);
    setMeasured(null);
    const laid = spaceOf(store.getState().built);
    if (gesture === "corners" && laid)
      setPoints(
        [INSET, INSET, 1 - INSET, INSET, 1 - INSET, 1 - INSET, INSET, 1 - INSET].map(
          (v, i) => v * (i % 2 ? laid.height : laid.width),
        ),
      );
  }, [tool?.id, gesture, store]);
  useEffect(() => {
    if (!tool) return;
    const press = (e: KeyboardEvent) => e.key === "Escape" && store.setState({ tool: null });
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [tool, store]);
  if (!tool || !space) return null;

  const part = doc.makings.find((n) => n.id === tool.part)!;
  const at = (e: React.PointerEvent): [number, number] => {
    const r = svg.current!.getBoundingClientRect();
    const p = scene.pick(e.clientX - r.left, e.clientY - r.top);
    return p ? space.toPixel(p.x, p.y) : [0, 0];
  };
  const onScreen = (px: number, py: number): [number, number] => {
    const [x, y] = space.toStock(px, py);
    const p = scene.project(x, y, 0);
    return [p.x, p.y];
  };
  const picture = aboutOf(doc, tool.part, "raster")!;
  const box = cropBox((picture.settings.crop as string) ?? "", 1e9, 1e9);
  const apply = (pixels: number[]) => {
    if (tool.id === "colours") {
      void pickColour(built!, picture.asset!.sha, pixels[0], pixels[1]).then((hex) => hex && toggleColour(hex));
      return;
    }
    const after = kind!.apply({
      pixels,
      space,
      own: part.settings,
      file: picture.asset!,
      offset: part === picture && picture.settings.crop ? [box.x, box.y] : [0, 0],
      mode: current,
      brush,
      proportion: (doc.stock.width - 2 * doc.stock.margin) / (doc.stock.height - 2 * doc.stock.margin),
    });
    if (!after) return;
    change(kind!.title.toLowerCase(), (d) => {
      const p = d.makings.find((n) => n.id === tool.part)!;
      for (const [k, v] of Object.entries(after))
        if (v === undefined) delete p.settings[k];
        else p.settings[k] = v;
    });
    if (gesture === "corners" || tool.id === "crop" || tool.id === "straighten") store.setState({ tool: null });
  };
  const toggleColour = (hex: string) => {
    const kept = built!.shown.shapes!.colours!.filter((c) => c.kept !== (c.hex === hex)).map((c) => c.hex);
    change("colours kept", (d) => void (d.makings.find((n) => n.id === tool.part)!.settings.keep = kept.join(",")));
  };

  const screen = Array.from({ length: points.length / 2 }, (_, i) => onScreen(points[2 * i], points[2 * i + 1]));
  const path = screen.map(([x, y], i) => `${i ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`).join("");
  const length = points.length >= 4 ? Math.hypot(points[2] - points[0], points[3] - points[1]) / space.perMm : 0;
  return (
    <>
      <svg
        ref={svg}
        role="application"
        aria-label={kind?.how ?? "Tool"}
        className="absolute inset-0 h-full w-full cursor-crosshair touch-none"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          const p = at(e);
          if (gesture === "corners") {
            let best = 0;
            let least = Infinity;
            for (let i = 0; i < 4; i++) {
              const d = Math.hypot(points[2 * i] - p[0], points[2 * i + 1] - p[1]);
              if (d < least) [least, best] = [d, i];
            }
            drag.current = best;
            return;
          }
          drag.current = 0;
          setMeasured(null);
          setPoints(gesture === "click" ? p : [...p, ...p]);
        }}
        onPointerMove={(e) => {
          if (drag.current === null) return;
          const p = at(e);
          if (gesture === "corners") setPoints(points.map((v, i) => (i >> 1 === drag.current ? p[i % 2] : v)));
          else if (gesture === "stroke") {
            const n = points.length;
            if (Math.hypot(points[n - 2] - p[0], points[n - 1] - p[1]) > 3) setPoints([...points, ...p]);
          } else if (gesture === "drag") setPoints([points[0], points[1], ...p]);
        }}
        onPointerCancel={() => {
          drag.current = null;
          if (gesture !== "corners") setPoints([]);
        }}
        onPointerUp={() => {
          if (drag.current === null) return;
          drag.current = null;
          if (gesture === "corners") return;
          if (tool.id === "measure") {
            if (length > 0.01) setMeasured(length);
            return;
          }
          apply(points);
          setPoints([]);
        }}
      >
        {gesture === "drag" && screen.length === 2 && (kind?.id === "straighten" || tool.id === "measure") && (
          <path d={path} stroke="#f2d45c" strokeWidth="2.5" />
        )}
        {gesture === "drag" && screen.length === 2 && kind && kind.id !== "straighten" && (
          <rect
            x={Math.min(screen[0][0], screen[1][0])}
            y={Math.min(screen[0][1], screen[1][1])}
            width={Math.abs(screen[1][0] - screen[0][0])}
            height={
              current === "proportion"
                ? Math.abs(screen[1][0] - screen[0][0]) /
                  ((doc.stock.width - 2 * doc.stock.margin) / (doc.stock.height - 2 * doc.stock.margin))
                : Math.abs(screen[1][1] - screen[0][1])
            }
            fill="#f2d45c22"
            stroke="#f2d45c"
            strokeWidth="2"
            strokeDasharray="6 4"
          />
        )}
        {gesture === "stroke" && screen.length > 1 && (
          <path
            d={path + (current === "lasso" ? "Z" : "")}
            fill={current === "lasso" ? "#f2d45c22" : "none"}
            stroke="#f2d45c"
            strokeOpacity={current === "brush" ? 0.6 : 1}
            strokeWidth={
              current === "brush" ? Math.max(2, Math.hypot(onScreen(brush * 2, 0)[0] - onScreen(0, 0)[0], 0)) : 2
            }
            strokeLinecap="round"
            strokeLinejoin="round"
          />
        )}
        {gesture === "corners" && screen.length === 4 && (
          <>
            <path d={path + "Z"} fill="#f2d45c18" stroke="#f2d45c" strokeWidth="2" />
            {screen.map(([x, y], i) => (
              <circle key={i} cx={x} cy={y} r="9" fill="#23423a" stroke="#f2d45c" strokeWidth="3" />
            ))}
          </>
        )}
      </svg>
      <div
        role="toolbar"
        aria-label="Tool"
        className={
          "absolute left-3 top-[62px] z-10 flex max-w-[calc(100%-24px)] flex-wrap items-center gap-x-3 gap-y-1 " +
          "rounded-md border border-line bg-raised px-3 py-1.5 shadow-card"
        }
      >
        <b className="font-head">{kind?.title ?? (tool.id === "measure" ? "Measure" : "Colours")}</b>
        <span className="whitespace-nowrap text-[13px] text-soft">
          {kind?.how ??
            (tool.id === "measure"
              ? "Draw between two places whose distance you know."
              : "Click a colour to keep it or leave it out.")}
        </span>
        {kind?.modes && <Toggle label="How" value={current} options={kind.modes} onChange={setMode} />}
        {current === "brush" && (
          <label className="flex items-center gap-1 text-soft">
            width
            <input
              type="range"
              min={2}
              max={120}
              value={brush}
              onChange={(e) => setBrush(Number(e.target.value))}
              aria-label="Brush width"
            />
          </label>
        )}
        {measured !== null && (
          <span className="flex items-center gap-2">
            is really
            <LengthField
              label="Real distance"
              value={measured}
              unit={unit}
              min={0.01}
              max={100000}
              onChange={(mm) => {
                change("size by a measured distance", (d) => {
                  const p = d.makings.find((n) => n.id === tool.part)!;
                  const width = Number(built!.resolved[p.id].width.value);
                  p.settings.width = Math.round(Math.min(5000, (width * mm) / measured) * 100) / 100;
                });
                store.setState({ tool: null });
              }}
            />
          </span>
        )}
        {gesture === "corners" && (
          <button className="btn btn-primary" onClick={() => apply(points)}>
            <Check size={15} /> Apply
          </button>
        )}
        <button
          className="btn btn-plain btn-icon"
          aria-label="Put the tool away"
          title="Put the tool away (Esc)"
          onClick={() => store.setState({ tool: null })}
        >
          <X size={16} />
        </button>
      </div>
    </>
  );
}
