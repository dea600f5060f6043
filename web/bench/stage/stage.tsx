"use client";
import dynamic from "next/dynamic";
import { useRef } from "react";
import { ClampHandles } from "../tools/clamp-handles.tsx";
import { CutMarks } from "../tools/cut-marks.tsx";
import { loadOverlay } from "../tools/load-overlay.ts";
import { useBench, useBenchStore, useParts } from "../context.tsx";
import { LightDome } from "./dome.tsx";
import { shownAs } from "./follow.ts";
import { GlowPlate } from "./glow.tsx";
import { useHands } from "./hands.ts";
import { KeptProof } from "./kept-proof.tsx";
import { Legends } from "./legend.tsx";
import { LayerMixer } from "./mixer.tsx";
import { Readout } from "./readout.tsx";
import { Rulers } from "./rulers.tsx";
import type { StageScene } from "./scene.ts";
import { SectionOnStage } from "./section-line.tsx";
import { StageBar } from "./stage-bar.tsx";
import { StageCanvas } from "./stage-canvas.tsx";
import { isPlan } from "./tilt.ts";
import { useScene } from "./use-scene.ts";
import { Wipe } from "./wipe.tsx";

const ToolOverlay = dynamic(() => loadOverlay().then((m) => m.ToolOverlay), { ssr: false });

/** The middle of the bench: one scene, one dial. */
export function Stage() {
  const store = useBenchStore();
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { scene, failed } = useScene(box, canvas);
  const isGlowing = useBench((s) => shownAs(s) === "glow");
  useHands(box, scene, store);
  return (
    <div ref={box} className="on-mat relative min-h-0 min-w-0 flex-1 overflow-hidden bg-mat">
      <StageCanvas canvas={canvas} scene={scene} />
      <LastSeen />
      {failed && (
        <p className="absolute inset-0 grid place-items-center p-8 text-center text-film">
          This browser shows no 3D drawing (WebGL). Everything else works; the proof&apos;s picture is in Write.
        </p>
      )}
      {scene && <FromAbove scene={scene} />}
      <LayerMixer />
      <Legends />
      {isGlowing ? <GlowPlate /> : <LightDome />}
      {scene && <SectionOnStage scene={scene} />}
      <Wipe />
      <Readout />
      <StageBar />
    </div>
  );
}

/** The proof as it was last seen, until one is computed. */
function LastSeen() {
  const { id, doc } = useParts("id", "doc");
  const first = useBench((s) => s.whole.boards[0].id);
  const isBuilt = useBench((s) => s.built !== null);
  return isBuilt ? null : <KeptProof id={id} doc={doc} isKept={doc.board.id === first} />;
}

/** What lies over the stock when it is seen from straight above: measures, handles, the tool in hand. */
function FromAbove({ scene }: { scene: StageScene }) {
  const isAbove = useBench((s) => isPlan(s.tilt));
  const hasTool = useBench((s) => s.tool !== null && s.doc.makings.some((m) => m.id === s.tool!.part));
  if (!isAbove) return null;
  return (
    <>
      <Rulers scene={scene} />
      <CutMarks scene={scene} />
      <ClampHandles scene={scene} />
      {hasTool && <ToolOverlay scene={scene} />}
    </>
  );
}
