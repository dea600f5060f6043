"use client";
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from "react";
import { ArrowDown, ArrowUp } from "lucide-react";
import {
  type ColumnDef,
  getCoreRowModel,
  getSortedRowModel,
  type SortingState,
  useReactTable,
} from "@tanstack/react-table";
import { useVirtualizer } from "@tanstack/react-virtual";
import type { Column, Entry } from "@oaken/core/shop/column";
import type { Unit } from "@oaken/core/units";
import { Cell } from "./cell.tsx";
import { isNumber, shownOf, unitOf } from "./figures.ts";

/** Height of a row, px. */
const ROW = 34;
/** Width of a column by what it holds, px; names take what is left. */
const WIDTHS: Partial<Record<Column["type"], number>> = { choice: 136, switch: 92, text: 150, whole: 76, numbers: 130 };
const widthOf = (c: Column): string =>
  c.key === "name" ? "minmax(190px, 1.5fr)" : c.key === "note" ? "minmax(120px, 1fr)" : `${WIDTHS[c.type] ?? 96}px`;

interface GridProps {
  label: string;
  columns: readonly Column[];
  entries: readonly Entry[];
  search: string;
  unit: Unit;
  chosen: string | null;
  choose(id: string): void;
  /** @throws Problem */
  set(id: string, key: string, value: unknown, label: string): void;
  /** what is wrong with what was typed into a cell; null where nothing is */
  say(wrong: string | null): void;
}

/** A table edited in place: arrows move from cell to cell, Enter or typing changes one, Escape leaves it as it was. */
export function Grid({ label, columns, entries, search, unit, chosen, choose, set, say }: GridProps) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const [at, setAt] = useState({ row: 0, column: 0 });
  const [editing, setEditing] = useState<string | null>(null);
  const defs = useMemo(
    () => columns.map((c): ColumnDef<Entry> => ({ id: c.key, accessorFn: (e) => e[c.key], sortUndefined: "last" })),
    [columns],
  );
  const table = useReactTable({
    data: entries as Entry[],
    columns: defs,
    state: { sorting },
    onSortingChange: setSorting,
    getRowId: (e) => e.id,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  const sorted = table.getRowModel().rows;
  const rows = useMemo(
    () => (search.trim() === "" ? sorted : sorted.filter((r) => matches(r.original, columns, search, unit))),
    [sorted, columns, search, unit],
  );
  useEffect(() => readAhead(entries, columns, unit), [entries, columns, unit]);
  const pane = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => pane.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const template = columns.map(widthOf).join(" ");
  const focus = useRef(false);
  const go = (row: number, column: number) => {
    const to = {
      row: Math.max(0, Math.min(rows.length - 1, row)),
      column: Math.max(0, Math.min(columns.length - 1, column)),
    };
    focus.current = true;
    setAt(to);
    if (rows[to.row]) choose(rows[to.row].id);
    virtual.scrollToIndex(to.row);
  };
  // The chosen entry may come from elsewhere: added, or found again after sorting.
  useEffect(() => {
    const row = rows.findIndex((r) => r.id === chosen);
    if (row >= 0) setAt((a) => (a.row === row ? a : { ...a, row }));
  }, [chosen, rows]);
  const shownAt = useRef<string | null>(null);
  useEffect(() => {
    const now = `${chosen} of ${rows.length}`;
    if (now === shownAt.current) return;
    shownAt.current = now;
    const row = rows.findIndex((r) => r.id === chosen);
    if (row >= 0) virtual.scrollToIndex(row);
  }, [chosen, rows, virtual]);
  const keys = (e: KeyboardEvent) => {
    if (editing !== null) return;
    const steps: Record<string, [number, number]> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
      PageUp: [-12, 0],
      PageDown: [12, 0],
      Home: [0, -columns.length],
      End: [0, columns.length],
    };
    const step = steps[e.key];
    if (step) {
      e.preventDefault();
      go(at.row + step[0], at.column + step[1]);
    } else if (e.key === "Enter" || e.key === "F2") {
      e.preventDefault();
      setEditing("");
    } else if (e.key.length === 1 && !e.ctrlKey && !e.metaKey && !e.altKey && e.key !== " ") {
      e.preventDefault();
      setEditing(e.key);
    }
  };
  return (
    <div
      role="grid"
      aria-label={label}
      aria-rowcount={rows.length + 1}
      aria-colcount={columns.length}
      ref={pane}
      onKeyDown={keys}
      className="min-h-0 flex-1 overflow-auto rounded-md border border-line bg-raised"
    >
      <div className="min-w-fit">
        <div
          role="row"
          aria-rowindex={1}
          className="sticky top-0 z-10 grid bg-film"
          style={{ gridTemplateColumns: template }}
        >
          {columns.map((c) => {
            const sorted = table.getColumn(c.key)?.getIsSorted();
            return (
              <div
                key={c.key}
                role="columnheader"
                aria-sort={sorted === "asc" ? "ascending" : sorted === "desc" ? "descending" : "none"}
                className="border-b border-line"
              >
                <button
                  className={
                    "flex h-[46px] w-full items-center gap-1 px-2.5 text-[13px] font-semibold " +
                    "leading-4 hover:bg-sunk " +
                    (isNumber(c) ? "justify-end text-right" : "text-left")
                  }
                  title={c.help}
                  onClick={() => table.getColumn(c.key)?.toggleSorting()}
                >
                  <span>
                    {c.label}
                    {c.unit && <span className="font-normal text-soft"> {unitOf(c, unit)}</span>}
                  </span>
                  {sorted === "asc" && <ArrowUp size={13} className="shrink-0" />}
                  {sorted === "desc" && <ArrowDown size={13} className="shrink-0" />}
                </button>
              </div>
            );
          })}
        </div>
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((v) => {
            const { original: entry } = rows[v.index];
            return (
              <div
                key={entry.id}
                role="row"
                aria-rowindex={v.index + 2}
                aria-selected={entry.id === chosen}
                className="absolute inset-x-0 grid border-b border-line/60 aria-selected:bg-sunk"
                style={{ gridTemplateColumns: template, height: ROW, transform: `translateY(${v.start}px)` }}
              >
                {columns.map((c, i) => {
                  const isHere = at.row === v.index && at.column === i;
                  return (
                    <Cell
                      key={c.key}
                      column={c}
                      entry={entry}
                      unit={unit}
                      isHere={isHere}
                      takesFocus={isHere && focus.current}
                      editing={isHere ? editing : null}
                      point={() => go(v.index, i)}
                      begin={() => setEditing("")}
                      leave={(by) => {
                        setEditing(null);
                        go(v.index + by.rows, i + by.columns);
                      }}
                      say={say}
                      set={(value) => set(entry.id, c.key, value, c.label)}
                    />
                  );
                })}
              </div>
            );
          })}
        </div>
        {rows.length === 0 && <p className="p-4 text-soft">Nothing here goes by that.</p>}
      </div>
    </div>
  );
}

/** What a search looks at, by entry: put together once. */
const texts = new WeakMap<Entry, { unit: Unit; text: string }>();

function textOfEntry(entry: Entry, columns: readonly Column[], unit: Unit): string {
  const known = texts.get(entry);
  if (known?.unit === unit) return known.text;
  const text = columns
    .map((c) => shownOf(c, entry, unit))
    .join(" ")
    .toLowerCase();
  texts.set(entry, { unit, text });
  return text;
}

/** Every word of the search is somewhere in the entry. */
function matches(entry: Entry, columns: readonly Column[], words: string, unit: Unit): boolean {
  const text = textOfEntry(entry, columns, unit);
  return words
    .toLowerCase()
    .trim()
    .split(/\s+/)
    .every((w) => text.includes(w));
}

/** So long at most the page is held while texts are put together ahead of the first search, ms. */
const SLICE_MS = 8;

/** Puts together what searches look at while nothing else is to be done. @returns leaves off */
function readAhead(entries: readonly Entry[], columns: readonly Column[], unit: Unit): () => void {
  let [at, timer] = [0, 0];
  const slice = () => {
    for (const end = performance.now() + SLICE_MS; at < entries.length && performance.now() < end; at++)
      textOfEntry(entries[at], columns, unit);
    if (at < entries.length) timer = window.setTimeout(slice, SLICE_MS);
  };
  timer = window.setTimeout(slice, SLICE_MS);
  return () => window.clearTimeout(timer);
}
