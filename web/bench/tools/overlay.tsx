"use client";
import { useRef, useState } from "react";
import { Check } from "lucide-react";
import { aboutOf } from "@oaken/core/job/graph";
import { cropBox } from "@oaken/core/picture/frame";
import { LengthField } from "../../ui/length-field.tsx";
import { Slide } from "../../ui/slide.tsx";
import { Toggle } from "../../ui/toggle.tsx";
import { useActions, useBench, useBenchStore, useParts } from "../context.tsx";
import { useCamera } from "../stage/camera.ts";
import type { StageScene } from "../stage/scene.ts";
import { DrawnGesture, placeSaid } from "./drawn-gesture.tsx";
import { useFocusHeld } from "./focus.ts";
import { type Space, spaceOf } from "./space.ts";
import { ToolBar } from "./tool-bar.tsx";
import { type Tool, toolById } from "./tools.ts";
import { useGesture } from "./use-gesture.ts";

/** The brush's radius at first, and its bounds, px. */
const BRUSH = { usual: 12, least: 2, most: 120 };
/** Shorter than this nothing was measured, mm. */
const LEAST_LENGTH = 0.01;

/** The tool in hand: an overlay that takes pointer and keys, and a bar that says how it is used. */
export function ToolOverlay({ scene }: { scene: StageScene }) {
  const { tool, built } = useParts("tool", "built");
  const space = spaceOf(built);
  const kind = tool && toolById(tool.id);
  if (!kind || !space) return null;
  return <InHand key={kind.id} scene={scene} part={tool.part} kind={kind} space={space} />;
}

function InHand({ scene, part, kind, space }: { scene: StageScene; part: string; kind: Tool; space: Space }) {
  const store = useBenchStore();
  const { stock } = useBench((s) => s.doc);
  const { change } = useActions();
  useCamera(scene);
  const svg = useRef<SVGSVGElement>(null);
  useFocusHeld(svg);
  const [mode, setMode] = useState(kind.modes?.[0].value ?? "");
  const [brush, setBrush] = useState(BRUSH.usual);
  const [measured, setMeasured] = useState<number | null>(null);
  const gesture = kind.modes?.find((m) => m.value === mode)?.gesture ?? kind.gesture;
  const proportion = (stock.width - 2 * stock.margin) / (stock.height - 2 * stock.margin);
  const putAway = () => store.setState({ tool: null });

  const apply = async (pixels: number[]) => {
    const { doc, built } = store.getState();
    if (kind.measures) {
      const length = Math.hypot(pixels[2] - pixels[0], pixels[3] - pixels[1]) / space.perMm;
      return setMeasured(length > LEAST_LENGTH ? length : null);
    }
    const picture = aboutOf(doc, part, "raster")!;
    const box = cropBox((picture.settings.crop as string) ?? "", 1e9, 1e9);
    const after = await kind.apply({
      pixels,
      space,
      own: doc.makings.find((n) => n.id === part)!.settings,
      file: picture.asset!,
      built: built!,
      offset: picture.id === part && picture.settings.crop ? [box.x, box.y] : [0, 0],
      mode,
      brush,
      proportion,
    });
    if (!after) return;
    change(kind.title.toLowerCase(), (d) => {
      const { settings } = d.makings.find((n) => n.id === part)!;
      for (const [k, v] of Object.entries(after))
        if (v === undefined) delete settings[k];
        else settings[k] = v;
    });
    if (kind.isOnce) putAway();
  };
  const hand = useGesture(kind.id, gesture, space, (points) => void apply(points));

  const at = (e: React.PointerEvent): [number, number] => {
    const r = svg.current!.getBoundingClientRect();
    const p = scene.pick(e.clientX - r.left, e.clientY - r.top);
    return p ? space.toPixel(p.x, p.y) : [0, 0];
  };
  const onScreen = (px: number, py: number): [number, number] => {
    const [x, y] = space.toStock(px, py);
    const p = scene.eye.project(x, y, 0);
    return [p.x, p.y];
  };
  return (
    <>
      <svg
        ref={svg}
        role="application"
        tabIndex={0}
        aria-label={`${kind.title}. ${kind.how} Arrows move a crosshair, Enter puts it down and takes it up.`}
        className="absolute inset-0 h-full w-full cursor-crosshair touch-none outline-offset-[-3px]"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          setMeasured(null);
          hand.down(at(e));
        }}
        onPointerMove={(e) => hand.move(at(e))}
        onPointerCancel={hand.cancel}
        onPointerUp={hand.up}
        onKeyDown={(e) => {
          if (e.key === "Escape") putAway();
          else if (gesture === "corners" && e.key === "Enter") void apply(hand.made());
          else if (!hand.key(e)) return;
          e.preventDefault();
          e.stopPropagation();
        }}
      >
        <DrawnGesture {...{ hand, tool: kind, gesture, mode, brush, proportion, space, onScreen }} />
      </svg>
      <ToolBar title={kind.title} how={kind.how} at={hand.cursor ? placeSaid(space, ...hand.cursor) : ""}>
        {kind.modes && <Toggle label="How" value={mode} options={kind.modes} onChange={setMode} />}
        {mode === "brush" && (
          <span className="flex items-center gap-1 text-soft">
            width
            <Slide
              look="short"
              label="Brush width"
              min={BRUSH.least}
              max={BRUSH.most}
              step={1}
              value={brush}
              onChange={setBrush}
            />
          </span>
        )}
        {measured !== null && <RealLength measured={measured} part={part} done={putAway} />}
        {gesture === "corners" && (
          <button className="btn btn-primary" onClick={() => void apply(hand.made())}>
            <Check size={15} /> Apply
          </button>
        )}
      </ToolBar>
    </>
  );
}

/** A measured length as it really is: the picture is made larger or smaller by it. */
function RealLength({ measured, part, done }: { measured: number; part: string; done(): void }) {
  const unit = useBench((s) => s.unit);
  const width = useBench((s) => Number(s.built!.resolved[part].width.value));
  const { change } = useActions();
  const sized = (mm: number) => {
    change("size by a measured distance", (d) => {
      const { settings } = d.makings.find((n) => n.id === part)!;
      settings.width = Math.round(Math.min(MOST_WIDTH, (width * mm) / measured) * 100) / 100;
    });
    done();
  };
  return (
    <span className="flex items-center gap-2">
      is really
      <LengthField label="Real distance" value={measured} unit={unit} min={0.01} max={100000} onChange={sized} />
    </span>
  );
}

/** A picture is no wider than this, mm. */
const MOST_WIDTH = 5000;
