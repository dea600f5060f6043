"use client";
import { useState, type ReactNode } from "react";
import { Archive, ArchiveRestore, Copy, Pin } from "lucide-react";
import type { Column, Entry } from "@oaken/core/shop/column";
import type { Unit } from "@oaken/core/units";
import { figureFrom, means, optionsOf, textOf, unitOf } from "./figures.ts";

interface BesideProps {
  columns: readonly Column[];
  entry: Entry;
  retired: boolean;
  unit: Unit;
  /** what stands above its figures: a drawing */
  picture?: ReactNode;
  /** what follows from them */
  below?: ReactNode;
  duplicate(): void;
  /** jobs begin with it from then on */
  makeFirst?(): void;
  isFirst?: boolean;
  retire(retired: boolean): void;
  /** @throws Problem */
  set(key: string, value: unknown, label: string): void;
}

/** The chosen entry beside its table: drawn from its numbers, with every figure it has. */
export function Beside(p: BesideProps) {
  const { entry, unit } = p;
  return (
    <aside
      aria-label={entry.name}
      className="flex w-[320px] shrink-0 flex-col overflow-y-auto border-l border-line bg-film px-4 pb-6 pt-4"
    >
      <h2 className="shrink-0 text-[17px]">{entry.name}</h2>
      <div className="mb-2 mt-2 flex shrink-0 gap-2">
        <button className="btn !h-8" onClick={p.duplicate}>
          <Copy size={14} /> Duplicate
        </button>
        <button className="btn !h-8" onClick={() => p.retire(!p.retired)}>
          {p.retired ? <ArchiveRestore size={14} /> : <Archive size={14} />}
          {p.retired ? "Bring back" : "Put aside"}
        </button>
      </div>
      {p.isFirst ? (
        <p className="mb-2 shrink-0 text-soft">The usual one: new jobs begin with it.</p>
      ) : (
        p.makeFirst && (
          <button className="btn mb-2 !h-8 shrink-0 self-start" onClick={p.makeFirst}>
            <Pin size={14} /> Make it the usual one
          </button>
        )
      )}
      <div className="shrink-0">{p.picture}</div>
      {p.columns
        .filter((c) => means(c, entry))
        .map((c) => (
          <Figure key={`${entry.id} ${c.key}`} column={c} value={entry[c.key]} unit={unit} set={p.set} id={entry.id} />
        ))}
      {p.below}
    </aside>
  );
}

interface FigureProps {
  column: Column;
  value: unknown;
  unit: Unit;
  id: string;
  set(key: string, value: unknown, label: string): void;
}

/** One figure with its name, unit and what it means. */
function Figure({ column: c, value, unit, id, set }: FigureProps) {
  const [wrong, setWrong] = useState<string | null>(null);
  const field = `figure-${id}-${c.key}`;
  const shown = textOf(c, value, unit);
  const take = (text: string) => {
    // What was not touched stays as it is, to its last decimal.
    if (text === shown) return setWrong(null);
    try {
      const next = figureFrom(c, text, unit);
      setWrong(null);
      if (JSON.stringify(next) !== JSON.stringify(value)) set(c.key, next, c.label);
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  const options = optionsOf(c);
  const boxWidth = unitOf(c, unit).length > LONG_UNIT ? "w-[158px]" : "w-[124px]";
  const isWide = c.type === "text" || c.type === "code" || c.type === "numbers" || c.type === "rows";
  return (
    <div className="shrink-0 border-t border-line py-2">
      <div className={isWide ? "grid gap-1" : "flex min-h-[30px] items-center justify-between gap-2"}>
        <label htmlFor={field} className="font-semibold">
          {c.label}
        </label>
        {c.type === "colour" ? (
          <input
            id={field}
            type="color"
            className="h-[30px] w-14 rounded border border-line bg-raised p-0.5"
            value={shown}
            onChange={(e) => take(e.target.value)}
          />
        ) : options ? (
          <select
            id={field}
            className="box !font-sans"
            value={options.find((o) => o.value === shown)?.value ?? ""}
            onChange={(e) => take(e.target.value)}
          >
            {c.optional && <option value="">not said</option>}
            {options.map((o) => (
              <option key={o.value} value={o.value}>
                {o.label}
              </option>
            ))}
          </select>
        ) : c.type === "code" ? (
          <textarea
            id={field}
            key={shown}
            rows={3}
            className="box !h-auto py-1"
            defaultValue={shown}
            onBlur={(e) => take(e.target.value)}
          />
        ) : c.type === "rows" ? (
          <Rows id={field} column={c} shown={shown} isWrong={wrong !== null} take={take} />
        ) : (
          <span className={`box inline-flex items-center gap-1 ${isWide ? "w-full !font-sans" : boxWidth}`}>
            <input
              id={field}
              key={shown}
              aria-invalid={wrong !== null}
              className={`w-full min-w-0 bg-transparent outline-none ${isWide ? "" : "text-right"}`}
              defaultValue={shown}
              onBlur={(e) => take(e.target.value)}
              onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
            />
            {unitOf(c, unit) && <span className="shrink-0 text-faint">{unitOf(c, unit)}</span>}
          </span>
        )}
      </div>
      {wrong && (
        <p role="alert" className="mt-1 text-[12.5px] leading-4 text-danger">
          {wrong}
        </p>
      )}
      {c.help && <p className="text-[12.5px] leading-[17px] text-soft">{c.help}</p>}
    </div>
  );
}

/** Units of more letters than this need a wider box. */
const LONG_UNIT = 6;

/** Rows of numbers, a line each, with what stands in each column above them. */
function Rows(p: { id: string; column: Column; shown: string; isWrong: boolean; take(text: string): void }) {
  const lines = p.shown === "" ? [] : p.shown.split("; ");
  const head = p.column.parts!.map((q) => `${q.label.toLowerCase()} ${q.unit ?? ""}`.trim());
  return (
    <>
      <span className="text-[12.5px] leading-[17px] text-soft">{head.join(" · ")}</span>
      <textarea
        id={p.id}
        key={p.shown}
        aria-invalid={p.isWrong}
        rows={lines.length + 1}
        className="box !h-auto py-1 font-mono text-[12.5px]"
        defaultValue={lines.join("\n")}
        onBlur={(e) => p.take(e.target.value)}
      />
    </>
  );
}
