"use client";
import { type RefObject, useLayoutEffect } from "react";
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  type DraggableSyntheticListeners,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import {
  horizontalListSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";

/** A press becomes a drag after so many pixels: less is a click. */
const DRAG_FROM = 6;

/** What a card's grip passes on, by the cut's id: empty until the sorting is loaded. */
export type Grips = Map<string, DraggableSyntheticListeners>;

/**
 * Cards dragged to another place in the order. It is loaded when a hand first comes to the strip, and stands beside
 * the cards instead of around them: a card that is under the pointer or has the focus then stays the same element.
 */
export default function Sorting({
  ids,
  track,
  grips,
  move,
}: {
  ids: string[];
  track: RefObject<HTMLDivElement | null>;
  grips: Grips;
  move(id: string, to: number): void;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAG_FROM } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: sortableKeyboardCoordinates,
      keyboardCodes: { start: ["KeyM"], cancel: ["Escape"], end: ["KeyM", "Enter"] },
    }),
  );
  const moved = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) move(active.id as string, ids.indexOf(over.id as string));
  };
  return (
    <DndContext id="run" sensors={sensors} collisionDetection={closestCenter} onDragEnd={moved}>
      <SortableContext items={ids} strategy={horizontalListSortingStrategy}>
        {ids.map((id) => (
          <Sorter key={id} id={id} track={track} grips={grips} />
        ))}
      </SortableContext>
    </DndContext>
  );
}

/** Moves the card of one cut while it, or another past it, is dragged. Draws nothing of its own. */
function Sorter({ id, track, grips }: { id: string; track: RefObject<HTMLDivElement | null>; grips: Grips }) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id });
  const describedBy = attributes["aria-describedby"];
  useLayoutEffect(() => {
    const card = cardOf(track, id);
    card.querySelector("button")!.setAttribute("aria-describedby", describedBy);
    setNodeRef(card);
    return () => setNodeRef(null);
  }, [track, id, describedBy, setNodeRef]);
  useLayoutEffect(() => {
    const card = cardOf(track, id);
    card.style.transform = CSS.Translate.toString(transform) ?? "";
    card.style.transition = transition ?? "";
    card.toggleAttribute("data-dragging", isDragging);
  });
  useLayoutEffect(() => {
    grips.set(id, listeners);
    return () => void grips.delete(id);
  }, [grips, id, listeners]);
  return null;
}

const cardOf = (track: RefObject<HTMLDivElement | null>, id: string) =>
  track.current!.querySelector<HTMLElement>(`[data-cut="${id}"]`)!;
