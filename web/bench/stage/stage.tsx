"use client";
import { useEffect, useRef, useState } from "react";
import { aboutOf } from "@oaken/core/job/graph";
import { makingKind } from "@oaken/core/makings/register";
import { formatLength } from "@oaken/core/units";
import { arrowMove } from "../../ui/arrows.ts";
import { useActions, useBench, useBenchStore } from "../context.tsx";
import { positionAt } from "../playback.ts";
import { LayerMixer } from "./mixer.tsx";
import { StageBar } from "./stage-bar.tsx";
import { LightDome } from "./dome.tsx";
import { GlowPlate } from "./glow.tsx";
import { ClampHandles } from "../tools/clamp-handles.tsx";
import { CutMarks } from "../tools/cut-marks.tsx";
import { ToolOverlay } from "../tools/overlay.tsx";
import { CutLegend, LeftLegend, Legend, OutlineLegend } from "./legend.tsx";
import { KeptProof } from "./kept-proof.tsx";
import { Rulers } from "./rulers.tsx";
import { SectionOnStage } from "./section-line.tsx";
import { MOST_TILT, StageScene } from "./scene.ts";

/** How far an arrow key moves the view, px. */
const PAN_STEP = 40;

/** The middle of the bench: one scene, one dial. */
export function Stage() {
  const store = useBenchStore();
  const { select } = useActions();
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const scene = useRef<StageScene | null>(null);
  const [spot, setSpot] = useState<ReturnType<StageScene["pick"]>>(null);
  const [wipe, setWipe] = useState<number | null>(null);
  const [, redraw] = useState(0);
  const [failed, setFailed] = useState(false);
  const {
    doc,
    built,
    live,
    liveTone,
    mixer,
    tilt,
    selected,
    scrubbed,
    playhead,
    target,
    unit,
    tool,
    working,
    id,
    colouring,
    glow,
    light,
  } = useBench((s) => s);
  const firstBoard = useBench((s) => s.whole.boards[0].id);
  const stockKey = `${doc.stock.width}×${doc.stock.height}×${doc.stock.thickness}`;

  // Drawing in 3D begins with the first proof: until then the picture of the last one stands there, and nothing slows
  // the build.
  const ready = built !== null;
  useEffect(() => {
    if (!ready) return;
    let s: StageScene;
    try {
      s = new StageScene(canvas.current!);
    } catch {
      setFailed(true);
      return;
    }
    scene.current = s;
    s.onDrawn = () => redraw((n) => n + 1);
    s.setStock(store.getState().doc.stock);
    s.view.tilt = store.getState().tilt * MOST_TILT;
    const size = () => {
      const r = box.current!.getBoundingClientRect();
      s.resize(r.width, r.height);
      s.fit();
    };
    const watch = new ResizeObserver(size);
    watch.observe(box.current!);
    return () => {
      watch.disconnect();
      s.dispose();
      scene.current = null;
    };
  }, [store, ready]);

  useEffect(() => scene.current?.setStock(doc.stock), [doc.stock]);
  useEffect(() => scene.current?.fit(), [stockKey]);
  const making = doc.makings.find((n) => n.id === selected);
  const selectedGives = making && makingKind(making.kind).gives;
  useEffect(() => {
    const wanted = selectedGives === "heights" ? built?.shown.heights?.surface : undefined;
    const surface = scrubbed ?? wanted ?? built?.surface;
    if (surface) scene.current?.setSurface(surface);
  }, [built, scrubbed, selectedGives]);
  const busy = !built?.final || working !== null;
  useEffect(() => {
    if (!scene.current) return;
    scene.current.busy = busy;
    if (!busy) scene.current.draw();
  }, [busy, ready]);
  const sha = aboutOf(doc, selected, "raster")?.asset?.sha;
  const raster = built?.shown.raster ?? null;
  const shapes = built?.shown.shapes ?? null;
  const toned = selectedGives === "grey" ? (liveTone ?? built?.shown.grey?.tone ?? null) : null;
  useEffect(() => {
    if (toned) scene.current?.setTone(toned, raster?.place ?? null);
    else if (raster?.framed) scene.current?.setPixels(raster.framed, raster.place);
    else scene.current?.setPicture(sha ? `/api/assets/${sha}/picture` : null, raster?.place ?? null);
  }, [sha, raster, toned]);
  useEffect(() => scene.current?.setOutline(live ?? shapes?.outline.rings ?? null), [live, shapes]);
  const only = doc.cuts.some((c) => c.id === selected) ? selected : null;
  const hasPaths = mixer.paths > 0.01;
  useEffect(() => {
    if (built && hasPaths) scene.current?.setPaths(built.cuts, only);
  }, [built, hasPaths, only]);
  const litho = built?.litho ?? null;
  const shownAs = colouring === "glow" && !litho ? "material" : colouring;
  useEffect(() => scene.current?.setMixer(mixer, shownAs), [mixer, shownAs, ready]);
  useEffect(() => void (litho && scene.current?.setGlow(litho, glow)), [litho, glow, ready]);
  useEffect(() => scene.current?.setLight(light), [light, ready]);
  useEffect(() => scene.current?.setWipe(wipe ?? 0), [wipe]);
  const outlineSelected = selectedGives === "shapes";
  useEffect(
    () => scene.current?.setOutlineMarks(outlineSelected ? (shapes?.outline ?? null) : null),
    [outlineSelected, shapes],
  );
  useEffect(
    () => scene.current?.setMarks((outlineSelected && shapes?.outline.droppedAt) || []),
    [outlineSelected, shapes],
  );
  useEffect(() => {
    const s = scene.current;
    if (!s) return;
    s.view.tilt = tilt * MOST_TILT;
    s.fit();
  }, [tilt]);
  useEffect(() => {
    const s = scene.current;
    if (!s || !target) return;
    Object.assign(s.view, {
      x: target.x,
      y: target.y,
      distance: Math.min(s.view.distance, 1.2 * Math.max(60, store.getState().doc.stock.width / 3)),
    });
    s.setMarks([target.x, target.y]);
  }, [target, store]);
  useEffect(() => {
    const at = playhead !== null && built ? positionAt(built.cuts, playhead) : null;
    const cut = at && doc.cuts.find((c) => c.id === built!.cuts[at.cut].id);
    scene.current?.setCutter(cut?.cutter ?? null, at?.x, at?.y, at?.z);
  }, [playhead, built, doc.cuts]);

  const drag = useRef<{ x: number; y: number; moved: boolean } | null>(null);
  const perPixel = () => {
    const s = scene.current!;
    return (2 * s.view.distance * Math.tan((11 * Math.PI) / 180)) / canvas.current!.clientHeight;
  };
  const pan = (dx: number, dy: number) => {
    const s = scene.current!;
    s.view.x -= dx * perPixel();
    s.view.y += (dy * perPixel()) / Math.max(0.4, Math.cos(s.view.tilt));
    s.draw();
  };
  const zoom = (k: number, px?: number, py?: number) => {
    const s = scene.current!;
    const before = px === undefined ? null : s.pick(px, py!);
    s.view.distance = Math.max(8, Math.min(40000, s.view.distance * k));
    if (before) {
      s.view.x += (before.x - s.view.x) * (1 - k);
      s.view.y += (before.y - s.view.y) * (1 - k);
    }
    s.draw();
  };
  useEffect(() => {
    const el = canvas.current!;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      const r = el.getBoundingClientRect();
      zoom(Math.exp(Math.max(-0.4, Math.min(0.4, e.deltaY * 0.0015))), e.clientX - r.left, e.clientY - r.top);
    };
    el.addEventListener("wheel", wheel, { passive: false });
    return () => el.removeEventListener("wheel", wheel);
  }, []);
  useEffect(() => {
    const fit = () => scene.current?.fit();
    window.addEventListener("oaken-fit", fit);
    return () => window.removeEventListener("oaken-fit", fit);
  }, []);

  const by = spot && spot.by > 0 ? doc.cuts.find((c) => c.id === built?.cuts[spot.by - 1]?.id) : null;
  const n = (v: number) => formatLength(v, unit);

  return (
    <div ref={box} className="on-mat relative min-h-0 min-w-0 flex-1 overflow-hidden bg-mat">
      <canvas
        ref={canvas}
        tabIndex={0}
        aria-label={
          `The stock, ${n(doc.stock.width)} by ${n(doc.stock.height)} ${unit}, with its computed surface. Arrow ` +
          "keys move the view, plus and minus zoom, F shows all, T tilts."
        }
        role="img"
        className="absolute inset-0 h-full w-full cursor-grab outline-offset-[-3px] active:cursor-grabbing"
        onPointerDown={(e) => {
          drag.current = { x: e.clientX, y: e.clientY, moved: false };
          e.currentTarget.setPointerCapture(e.pointerId);
        }}
        onPointerMove={(e) => {
          const r = e.currentTarget.getBoundingClientRect();
          if (drag.current) {
            const [dx, dy] = [e.clientX - drag.current.x, e.clientY - drag.current.y];
            if (drag.current.moved || Math.hypot(dx, dy) > 3) {
              pan(dx, dy);
              drag.current = { x: e.clientX, y: e.clientY, moved: true };
            }
          } else setSpot(scene.current?.pick(e.clientX - r.left, e.clientY - r.top) ?? null);
        }}
        onPointerUp={(e) => {
          const r = e.currentTarget.getBoundingClientRect();
          const p = !drag.current?.moved ? scene.current?.pick(e.clientX - r.left, e.clientY - r.top) : null;
          drag.current = null;
          if (p && p.by > 0 && built?.cuts[p.by - 1]) select(built.cuts[p.by - 1].id);
        }}
        onPointerLeave={() => setSpot(null)}
        onKeyDown={(e) => {
          // The view moves with the key: what is seen, the other way. Pixels count downward.
          const way = arrowMove(e.key, PAN_STEP);
          if (way) pan(-way.dx, way.dy);
          else if (e.key === "+" || e.key === "=") zoom(0.8);
          else if (e.key === "-") zoom(1.25);
          else return;
          e.preventDefault();
        }}
      />
      {!built && <KeptProof id={id} doc={doc} isKept={doc.board.id === firstBoard} />}
      {failed && (
        <p className="absolute inset-0 grid place-items-center p-8 text-center text-film">
          This browser shows no 3D drawing (WebGL). Everything else works; the proof&apos;s picture is in Write.
        </p>
      )}
      {scene.current && tilt < 0.02 && <Rulers scene={scene.current} stock={doc.stock} unit={unit} />}

      <LayerMixer />

      {built && !outlineSelected && (mixer.paths > 0.01 || colouring === "depth") && (
        <Legend cuts={built.cuts} unit={unit} rapids={mixer.paths > 0.01} />
      )}
      {built && !outlineSelected && mixer.paths <= 0.01 && colouring === "cut" && <CutLegend built={built} />}
      {built && !outlineSelected && mixer.paths <= 0.01 && colouring === "left" && (
        <LeftLegend built={built} unit={unit} />
      )}
      {shownAs === "glow" ? <GlowPlate /> : <LightDome />}
      {scene.current && <SectionOnStage scene={scene.current} />}
      {scene.current && tilt < 0.02 && <CutMarks scene={scene.current} />}
      {scene.current && tilt < 0.02 && <ClampHandles scene={scene.current} />}
      {outlineSelected && <OutlineLegend built={built} />}
      {tool && doc.makings.some((q) => q.id === tool.part) && scene.current && tilt < 0.02 && (
        <ToolOverlay scene={scene.current} />
      )}

      {wipe !== null && (
        <div
          role="slider"
          aria-label="Wipe between picture and proof"
          aria-valuenow={Math.round(wipe)}
          tabIndex={0}
          className={
            "absolute bottom-0 top-0 w-3 -translate-x-1/2 cursor-ew-resize border-x-[5px] border-transparent " +
            "bg-chalk bg-clip-padding"
          }
          style={{ left: wipe }}
          onKeyDown={(e) =>
            (e.key === "ArrowLeft" || e.key === "ArrowRight") && setWipe(wipe + (e.key === "ArrowLeft" ? -20 : 20))
          }
          onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
          onPointerMove={(e) =>
            e.buttons &&
            setWipe(
              Math.max(1, Math.min(box.current!.clientWidth, e.clientX - box.current!.getBoundingClientRect().left)),
            )
          }
        />
      )}

      <div
        className={
          "plate num absolute bottom-3 left-3 max-[1100px]:bottom-14 flex min-h-8 items-center whitespace-pre px-3"
        }
        data-testid="readout"
      >
        {spot && spot.x >= 0 && spot.y >= 0 && spot.x <= doc.stock.width && spot.y <= doc.stock.height
          ? `x ${n(spot.x)}  y ${n(spot.y)}  depth ${n(-spot.z)}${by ? `  by ${by.name}` : ""}`
          : `${n(doc.stock.width)} × ${n(doc.stock.height)} × ${n(doc.stock.thickness)} ${unit}`}
      </div>

      <StageBar
        isWiped={wipe !== null}
        toggleWipe={() => setWipe(wipe === null ? box.current!.clientWidth / 2 : null)}
        fit={() => scene.current?.fit()}
      />
    </div>
  );
}
