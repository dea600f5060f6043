import { useBench, useBenchStore } from "../context.tsx";

/** Arrow keys move the line so far, px. */
const STEP = 20;

/** The line at which picture and proof part, dragged or moved by arrows. */
export function Wipe() {
  const store = useBenchStore();
  const wipe = useBench((s) => s.wipe);
  if (wipe === null) return null;
  const to = (at: number, wide: number) => store.setState({ wipe: Math.max(1, Math.min(wide, at)) });
  const stageOf = (e: { currentTarget: Element }) => e.currentTarget.parentElement!.getBoundingClientRect();
  return (
    <div
      role="slider"
      aria-label="Wipe between picture and proof"
      aria-valuenow={Math.round(wipe)}
      tabIndex={0}
      className={
        "absolute bottom-0 top-0 w-3 -translate-x-1/2 cursor-ew-resize touch-none border-x-[5px] border-transparent " +
        "bg-chalk bg-clip-padding"
      }
      style={{ left: wipe }}
      onKeyDown={(e) => {
        const way = { ArrowLeft: -STEP, ArrowRight: STEP }[e.key];
        if (!way) return;
        to(wipe + way, stageOf(e).width);
        e.preventDefault();
      }}
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={(e) => {
        const { left, width } = stageOf(e);
        if (e.buttons) to(e.clientX - left, width);
      }}
    />
  );
}
