"use client";
import { Check } from "lucide-react";
import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import type { Column, Entry } from "@oaken/core/shop/column";
import type { Unit } from "@oaken/core/units";
import { figureFrom, isNumber, means, optionsOf, shownOf, textOf } from "./figures.ts";

/** From a cell to the next one after a change. */
interface Leave {
  rows: number;
  columns: number;
}
const STAY: Leave = { rows: 0, columns: 0 };

interface CellProps {
  column: Column;
  entry: Entry;
  unit: Unit;
  isHere: boolean;
  takesFocus: boolean;
  /** what was typed to begin with, while the cell is changed */
  editing: string | null;
  point(): void;
  begin(): void;
  leave(by: Leave): void;
  /** @throws Problem */
  set(value: unknown): void;
  /** what is wrong with what was typed; null where nothing is */
  say(wrong: string | null): void;
}

/** One figure of an entry in the table. */
export function Cell(p: CellProps) {
  const { column: c, entry, unit, isHere, takesFocus } = p;
  const own = useRef<HTMLDivElement>(null);
  const wasHere = useRef(false);
  const isEdited = p.editing !== null && means(c, entry);
  useEffect(() => {
    if (takesFocus && !isEdited) own.current?.focus({ preventScroll: true });
  }, [takesFocus, isEdited]);
  const text = shownOf(c, entry, unit);
  return (
    <div
      ref={own}
      role="gridcell"
      tabIndex={isHere ? 0 : -1}
      aria-label={`${c.label} of ${entry.name}: ${text || "empty"}`}
      onMouseDown={() => (wasHere.current = document.activeElement === own.current)}
      onClick={() => (wasHere.current ? p.begin() : p.point())}
      onDoubleClick={p.begin}
      className={
        "flex items-center overflow-hidden px-2.5 outline-none focus:ring-2 focus:ring-inset focus:ring-spruce " +
        (isNumber(c) ? "justify-end " : "") +
        (means(c, entry) ? "" : "bg-film")
      }
    >
      {isEdited ? <Editor {...p} begun={p.editing!} /> : <Shown column={c} entry={entry} text={text} />}
    </div>
  );
}

function Shown({ column: c, entry, text }: { column: Column; entry: Entry; text: string }) {
  if (c.type === "switch")
    return entry[c.key] ? <Check size={15} aria-hidden /> : <span className="text-faint">–</span>;
  if (c.type === "colour")
    return <span className="h-4 w-8 rounded-sm border border-line" style={{ background: text }} aria-hidden />;
  const isFigure = isNumber(c) || c.type === "numbers" || c.type === "rows";
  return <span className={`truncate ${isFigure ? "num" : ""}`}>{text}</span>;
}

function Editor({ column: c, entry, unit, begun, leave, set, say }: CellProps & { begun: string }) {
  const [isWrong, setIsWrong] = useState(false);
  const isDone = useRef(false);
  const shown = textOf(c, entry[c.key], unit);
  /** @returns whether it could be taken */
  const take = (text: string): boolean => {
    // What was not touched stays as it is, to its last decimal.
    if (text === shown) {
      isDone.current = true;
      return true;
    }
    try {
      const value = figureFrom(c, text, unit);
      if (JSON.stringify(value) !== JSON.stringify(entry[c.key])) set(value);
      isDone.current = true;
      say(null);
      return true;
    } catch (e) {
      setIsWrong(true);
      say((e as Error).message);
      return false;
    }
  };
  const keys = (e: KeyboardEvent<HTMLInputElement | HTMLSelectElement>) => {
    e.stopPropagation();
    const way = e.shiftKey ? -1 : 1;
    const ways: Record<string, Leave> = { Enter: { rows: way, columns: 0 }, Tab: { rows: 0, columns: way } };
    const by = ways[e.key];
    if (e.key === "Escape") {
      isDone.current = true;
      say(null);
      leave(STAY);
    } else if (by) {
      e.preventDefault();
      if (take(e.currentTarget.value)) leave(by);
    }
  };
  const blurred = (text: string) => {
    if (isDone.current) return;
    // What cannot be taken is said; the cell goes back to what it held.
    take(text);
    isDone.current = true;
    leave(STAY);
  };
  const label = `${c.label} of ${entry.name}`;
  const options = optionsOf(c);
  if (options)
    return (
      <select
        autoFocus
        aria-label={label}
        className="h-full w-full bg-transparent outline-none"
        defaultValue={shown}
        onChange={(e) => take(e.target.value) && leave(STAY)}
        onKeyDown={keys}
        onBlur={(e) => blurred(e.target.value)}
      >
        {c.optional && <option value="" />}
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
    );
  return (
    <input
      autoFocus
      aria-label={label}
      aria-invalid={isWrong}
      className={
        "w-full bg-transparent outline-none aria-[invalid=true]:text-danger " +
        (c.type === "text" ? "" : "num text-right")
      }
      defaultValue={begun || shown}
      onFocus={({ target: t }) => (begun === "" ? t.select() : t.setSelectionRange(begun.length, begun.length))}
      onKeyDown={keys}
      onBlur={(e) => blurred(e.target.value)}
    />
  );
}
