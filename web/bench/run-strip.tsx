"use client";
import { Fragment, lazy, type RefObject, Suspense, useContext, useEffect, useRef, useState } from "react";
import { moveCut } from "@oaken/core/job/edit";
import { BenchContext, useActions, useBench } from "./context.tsx";
import { seek } from "./playback.ts";
import { AddCut } from "./run/add-cut.tsx";
import { CutCard } from "./run/card.tsx";
import { Player } from "./run/player.tsx";
import { Playhead } from "./run/playhead.tsx";
import type { Grips } from "./run/sorting.tsx";
import { StopCard } from "./run/stop-card.tsx";
import { Total } from "./run/total.tsx";

/** Loaded when a hand first comes to the strip. */
const Sorting = lazy(() => import("./run/sorting.tsx"));

/** The bottom: cuts in machining order, as wide as they take time, and the proof's scrubber. */
export function RunStrip() {
  const track = useRef<HTMLDivElement>(null);
  const [sorts, setSorts] = useState(false);
  useEffect(() => {
    // A finger comes without warning: what it drags must be there before.
    if (matchMedia("(pointer: coarse)").matches) setSorts(true);
  }, []);
  return (
    <section
      aria-label="Run strip"
      className="flex h-[100px] shrink-0 items-stretch gap-3 border-t border-line bg-film px-3"
      onPointerEnter={() => setSorts(true)}
      onFocus={() => setSorts(true)}
    >
      <Player />
      <div className="relative min-w-0 flex-1 overflow-x-auto overflow-y-hidden">
        <div ref={track} className="relative flex h-full items-center gap-1.5 pt-2.5">
          <Cards track={track} sorts={sorts} />
          <AddCut />
          <Playhead track={track} />
        </div>
      </div>
      <Total />
    </section>
  );
}

/** The cuts' cards and the stops between them, dragged to reorder. */
function Cards({ track, sorts }: { track: RefObject<HTMLDivElement | null>; sorts: boolean }) {
  const { bench, desk } = useContext(BenchContext)!;
  const cuts = useBench((s) => s.doc.cuts);
  const built = useBench((s) => s.built);
  const { change } = useActions();
  const grips = useRef<Grips>(new Map()).current;
  const results = new Map(built?.cuts.map((c) => [c.id, c]));
  /** Cutting time of everything before the n-th cut. */
  const secondsBefore = (n: number): number =>
    cuts.slice(0, n).reduce((sum, c) => sum + (c.on ? (results.get(c.id)?.seconds ?? 0) : 0), 0);
  if (cuts.length === 0) return <p className="text-soft">No cuts yet: add one here.</p>;
  return (
    <>
      {cuts.map((c, i) => (
        <Fragment key={c.id}>
          {c.stop && <StopCard cut={c} />}
          <CutCard
            cut={c}
            index={i}
            result={results.get(c.id)}
            grips={grips}
            seeAfter={() => seek(bench, desk, secondsBefore(i + 1))}
          />
        </Fragment>
      ))}
      {sorts && (
        <Suspense fallback={null}>
          <Sorting
            ids={cuts.map((c) => c.id)}
            track={track}
            grips={grips}
            move={(id, to) => change("machining order", (d) => moveCut(d, id, to))}
          />
        </Suspense>
      )}
    </>
  );
}
