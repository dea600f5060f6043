"use client";
import { Fragment, useContext, useRef } from "react";
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { horizontalListSortingStrategy, SortableContext, sortableKeyboardCoordinates } from "@dnd-kit/sortable";
import { moveCut } from "@oaken/core/job/edit";
import { BenchContext, useActions, useBench } from "./context.tsx";
import { seek } from "./playback.ts";
import { AddCut } from "./run/add-cut.tsx";
import { CutCard } from "./run/card.tsx";
import { Player } from "./run/player.tsx";
import { Playhead } from "./run/playhead.tsx";
import { StopCard } from "./run/stop-card.tsx";
import { Total } from "./run/total.tsx";

/** A press becomes a drag after so many pixels: less is a click. */
const DRAG_FROM = 6;

/** The bottom: cuts in machining order, as wide as they take time, and the proof's scrubber. */
export function RunStrip() {
  const track = useRef<HTMLDivElement>(null);
  return (
    <section
      aria-label="Run strip"
      className="flex h-[100px] shrink-0 items-stretch gap-3 border-t border-line bg-film px-3"
    >
      <Player />
      <div className="relative min-w-0 flex-1 overflow-x-auto overflow-y-hidden">
        <div ref={track} className="relative flex h-full items-center gap-1.5 pt-2.5">
          <Cards />
          <AddCut />
          <Playhead track={track} />
        </div>
      </div>
      <Total />
    </section>
  );
}

/** The cuts' cards and the stops between them, dragged to reorder. */
function Cards() {
  const { bench, desk } = useContext(BenchContext)!;
  const cuts = useBench((s) => s.doc.cuts);
  const built = useBench((s) => s.built);
  const { change } = useActions();
  const results = new Map(built?.cuts.map((c) => [c.id, c]));
  /** Cutting time of everything before the n-th cut. */
  const secondsBefore = (n: number): number =>
    cuts.slice(0, n).reduce((sum, c) => sum + (c.on ? (results.get(c.id)?.seconds ?? 0) : 0), 0);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAG_FROM } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: sortableKeyboardCoordinates,
      keyboardCodes: { start: ["KeyM"], cancel: ["Escape"], end: ["KeyM", "Enter"] },
    }),
  );
  const moved = ({ active, over }: DragEndEvent) => {
    const to = cuts.findIndex((c) => c.id === over?.id);
    if (over && active.id !== over.id) change("machining order", (d) => moveCut(d, active.id as string, to));
  };
  if (cuts.length === 0) return <p className="text-soft">No cuts yet: add one here.</p>;
  return (
    <DndContext id="run" sensors={sensors} collisionDetection={closestCenter} onDragEnd={moved}>
      <SortableContext items={cuts.map((c) => c.id)} strategy={horizontalListSortingStrategy}>
        {cuts.map((c, i) => (
          <Fragment key={c.id}>
            {c.stop && <StopCard cut={c} />}
            <CutCard
              cut={c}
              index={i}
              result={results.get(c.id)}
              seeAfter={() => seek(bench, desk, secondsBefore(i + 1))}
            />
          </Fragment>
        ))}
      </SortableContext>
    </DndContext>
  );
}
