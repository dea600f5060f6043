"use client";
import { useRef } from "react";
import { ImagePlus, PenLine, Plus, Type } from "lucide-react";
import { aboutOf } from "@oaken/core/job/graph";
import type { JobMaking } from "@oaken/core/job/document";
import { addDrawing, addLettering, addPicture, addSolid } from "@oaken/core/job/edit";
import { makingKind } from "@oaken/core/makings/register";
import { isSolidName } from "@oaken/files/solid";
import { formatLength } from "@oaken/core/units";
import { DropAnywhere, PICTURES } from "../shop/drop.tsx";
import { checkDrawing, uploadPicture } from "../ui/api.ts";
import { AddBoard } from "./boards.tsx";
import { useActions, useBench, useParts, useBenchStore } from "./context.tsx";
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
      <ReplacePicture />
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

/** Another picture in the place of the one at hand, everything downstream kept; or one more beside it. */
function ReplacePicture() {
  const replaced = useRef<HTMLInputElement>(null);
  const added = useRef<HTMLInputElement>(null);
  const drawn = useRef<HTMLInputElement>(null);
  const store = useBenchStore();
  // What the piece is made from is locked by a starting job, but for the picture.
  const begun = useBench((s) => s.whole.begun);
  const hasPicture = useBench((s) => s.doc.makings.some((m) => makingKind(m.kind).file === "picture"));
  const { change, select } = useActions();
  const take = async (
    file: File | undefined,
    work: (asset: NonNullable<JobMaking["asset"]>) => void | Promise<void>,
  ) => {
    if (!file) return;
    try {
      await work(await uploadPicture(file));
    } catch (e) {
      store.setState({ failed: (e as Error).message });
    }
  };
  const replace = (file?: File) =>
    take(file, (asset) => {
      const { doc, selected } = store.getState();
      const at = aboutOf(doc, selected, "raster")?.id;
      // A job of drawings alone has none: then it is the first.
      if (at === undefined) return change("add a picture", (d) => void addPicture(d, asset));
      change("replace the picture", (d) => {
        const p = d.makings.find((q) => q.id === at)!;
        p.asset = asset;
        p.name = asset.name;
      });
    });
  const add = (file?: File) =>
    take(file, (asset) => {
      let id = "";
      change("add a picture", (d) => void (id = addPicture(d, asset)));
      select(id);
    });
  const draw = (file?: File) =>
    take(file, async (asset) => {
      let id = "";
      if (isSolidName(file!.name)) change("add a solid", (d) => void (id = addSolid(d, asset)));
      else {
        await checkDrawing(asset.sha);
        change("add a drawing", (d) => void (id = addDrawing(d, asset)));
      }
      select(id);
    });
  const write = () => {
    let id = "";
    const { selected } = store.getState();
    change("add words", (d) => void (id = addLettering(d, selected)));
    select(id);
  };
  /** The file of an input, which forgets it: else the same one, mended and chosen again, would be no change. */
  const taken = (input: HTMLInputElement): File | undefined => {
    const file = input.files?.[0];
    input.value = "";
    return file;
  };
  return (
    <div className="grid gap-1.5 p-3">
      <DropAnywhere take={(files) => void replace(files[0])} text="Drop the picture in the place of this one" />
      <input
        ref={replaced}
        type="file"
        accept={PICTURES}
        className="hidden"
        aria-label="Picture file"
        onChange={(e) => void replace(taken(e.target))}
      />
      <input
        ref={added}
        type="file"
        accept={PICTURES}
        className="hidden"
        aria-label="One more picture file"
        onChange={(e) => void add(taken(e.target))}
      />
      <input
        ref={drawn}
        type="file"
        accept=".svg,image/svg+xml,.stl,model/stl"
        className="hidden"
        aria-label="Drawing file"
        onChange={(e) => void draw(taken(e.target))}
      />
      {hasPicture && (
        <button className="btn w-full border-dashed !font-normal text-soft" onClick={() => replaced.current!.click()}>
          <ImagePlus size={16} /> Replace the picture
        </button>
      )}
      {!begun && (
        <button className="btn w-full border-dashed !font-normal text-soft" onClick={() => added.current!.click()}>
          <Plus size={16} /> {hasPicture ? "One more picture" : "A picture"}
        </button>
      )}
      {!begun && (
        <button
          className="btn w-full border-dashed !font-normal text-soft"
          title="The closed shapes of an SVG drawing, exactly as they were drawn; or the surface of an STL solid"
          onClick={() => drawn.current!.click()}
        >
          <PenLine size={16} /> A drawing or solid
        </button>
      )}
      {!begun && (
        <button className="btn w-full border-dashed !font-normal text-soft" onClick={write}>
          <Type size={16} /> Words
        </button>
      )}
      {!begun && <AddBoard />}
    </div>
  );
}
