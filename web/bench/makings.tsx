"use client";
import { formatLength } from "@oaken/core/units";
import { AddMaking } from "./add-making.tsx";
import { useActions, useParts } from "./context.tsx";
import { viewOf } from "./views/register.ts";
import { useSeen } from "./views/seen.ts";
import { WorkingLine } from "./working-line.tsx";

/** The left side: what the piece is made from, each making with a small live picture of what it gives. */
export function Makings() {
  const { doc, whole, selected, unit } = useParts("doc", "whole", "selected", "unit");
  const { select, showBoard } = useActions();
  const seenNow = useSeen();
  const n = (v: number) => formatLength(v, unit);
  return (
    <nav
      aria-label="Makings"
      className="flex w-[232px] shrink-0 flex-col overflow-y-auto border-r border-line bg-film max-[1100px]:w-[200px]"
    >
      <h2 className="px-3 pb-1 pt-3 text-[14px] text-soft">Makings</h2>
      {whole.boards.map(({ id, name, stock }) => {
        const { material, width, height, thickness } = stock;
        const isShown = id === doc.board.id;
        return (
          <Entry
            key={id}
            id={isShown ? "stock" : id}
            name={whole.boards.length > 1 ? name : material.name}
            about={`${n(width)} × ${n(height)} × ${n(thickness)} ${unit}`}
            selected={selected}
            select={() => showBoard(id)}
            isShown={isShown && whole.boards.length > 1}
          >
            <StockPicture face={material.face} grain={material.grain} />
          </Entry>
        );
      })}
      {doc.makings.map((making) => {
        const view = viewOf(making);
        const seen = seenNow(making);
        return (
          <Entry
            key={making.id}
            id={making.id}
            name={making.name}
            about={view.about(seen)}
            selected={selected}
            select={select}
            indent={Object.keys(making.reads).length > 0}
            isComputed
          >
            <view.Thumbnail {...seen} />
          </Entry>
        );
      })}
      <AddMaking />
    </nav>
  );
}

function Entry({
  id,
  name,
  about,
  selected,
  select,
  indent,
  isComputed,
  isShown,
  children,
}: {
  id: string;
  name: string;
  about: string;
  selected: string;
  select(id: string): void;
  indent?: boolean;
  /** whether the worker computes it: its share done is seen */
  isComputed?: boolean;
  /** of a board among others: whether it lies on the stage */
  isShown?: boolean;
  children: React.ReactNode;
}) {
  return (
    <button
      onClick={() => select(id)}
      aria-current={selected === id}
      className={
        "relative flex items-center gap-2.5 py-1.5 pr-2 text-left hover:bg-sunk aria-[current=true]:bg-sunk " +
        `${indent ? "pl-8" : "pl-3"}`
      }
    >
      {isShown && <span aria-hidden="true" className="absolute inset-y-1 left-0 w-[3px] rounded-r bg-spruce" />}
      {indent && (
        <span
          aria-hidden="true"
          className="absolute bottom-1/2 left-[19px] top-[-8px] w-2.5 rounded-bl border-b border-l border-line"
        />
      )}
      <span
        className={
          "h-9 w-12 shrink-0 overflow-hidden rounded bg-raised ring-1 " +
          `${selected === id ? "ring-2 ring-spruce" : "ring-line"}`
        }
      >
        {children}
      </span>
      <span className="min-w-0">
        <span className="block truncate font-semibold">
          {name}
          {isShown && <span className="sr-only">, on the stage</span>}
        </span>
        <span className="block truncate text-[12.5px] leading-4 text-soft">{about}</span>
      </span>
      {isComputed && <WorkingLine on={(step) => step === id} className="inset-x-3" />}
    </button>
  );
}

function StockPicture({ face, grain }: { face: readonly number[]; grain: number }) {
  const c = (k: number) => `rgb(${face.map((v) => Math.round(v * k)).join(" ")})`;
  return (
    <svg viewBox="0 0 48 36" className="h-full w-full" preserveAspectRatio="none" aria-hidden="true">
      <rect width="48" height="36" fill={c(1)} />
      {grain > 0.2 &&
        [6, 13, 17, 25, 31].map((y, i) => (
          <path
            key={y}
            d={`M0 ${y}C12 ${y - 4 + i} 26 ${y + 4} 48 ${y - 1}`}
            stroke={c(0.86)}
            fill="none"
            strokeWidth={1 + (i % 2)}
          />
        ))}
    </svg>
  );
}
