"use client";
import { type RefObject, useRef } from "react";
import { Bookmark, ChevronRight, ImagePlus, Images, type LucideIcon, PenLine, Plus, Ruler, Type } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { addBoard } from "@oaken/core/job/boards";
import { aboutOf } from "@oaken/core/job/graph";
import type { BoardJob, JobMaking } from "@oaken/core/job/document";
import { addDrawing, addLettering, addPicture, addSolid } from "@oaken/core/job/edit";
import { makingKind } from "@oaken/core/makings/register";
import { isSolidName } from "@oaken/files/solid";
import { DropAnywhere, PICTURES } from "../shop/drop.tsx";
import { checkDrawing, uploadPicture } from "../ui/api.ts";
import { useBoards, useIsFull } from "./boards.tsx";
import { useActions, useBench, useBenchStore } from "./context.tsx";
import { KeptHeights } from "./kept-heights.tsx";

type Asset = NonNullable<JobMaking["asset"]>;

const MENU = "z-50 w-[252px] rounded-md border border-line bg-raised p-1 shadow-card";
const ITEM =
  "flex w-full cursor-pointer items-center gap-2.5 rounded px-2 py-1.5 outline-none data-[highlighted]:bg-sunk " +
  "data-[disabled]:cursor-default data-[disabled]:opacity-50";

/**
 * Another picture in the place of the one at hand, everything downstream kept; and what more there may be: pictures,
 * drawings, solids, words, heights that the shop keeps, boards.
 */
export function AddMaking() {
  const replaced = useRef<HTMLInputElement>(null);
  const added = useRef<HTMLInputElement>(null);
  const drawn = useRef<HTMLInputElement>(null);
  const store = useBenchStore();
  const isBoardsFull = useIsFull();
  const changeBoards = useBoards();
  // What the piece is made from is locked by a starting job, but for the picture.
  const isLocked = useBench((s) => s.whole.begun !== undefined);
  const hasPicture = useBench((s) => s.doc.makings.some((m) => makingKind(m.kind).file === "picture"));
  const { change, select } = useActions();
  /** One more making, and its slip. */
  const addOne = (what: string, edit: (d: BoardJob) => string) => {
    let id = "";
    change(`add ${what}`, (d) => void (id = edit(d)));
    select(id);
  };
  const send = async (file: File | undefined, work: (asset: Asset) => void | Promise<void>) => {
    if (!file) return;
    try {
      await work(await uploadPicture(file));
    } catch (e) {
      store.setState({ failed: (e as Error).message });
    }
  };
  const replace = (file?: File) =>
    send(file, (asset) => {
      const { doc, selected } = store.getState();
      const at = aboutOf(doc, selected, "raster")?.id;
      // A job of drawings or words alone has none: then it is the first.
      if (at === undefined) return addOne("a picture", (d) => addPicture(d, asset));
      change("replace the picture", (d) => {
        const p = d.makings.find((q) => q.id === at)!;
        p.asset = asset;
        p.name = asset.name;
      });
    });
  const add = (file?: File) => send(file, (asset) => addOne("a picture", (d) => addPicture(d, asset)));
  const draw = (file?: File) =>
    send(file, async (asset) => {
      if (isSolidName(file!.name)) return addOne("a solid", (d) => addSolid(d, asset));
      await checkDrawing(asset.sha);
      addOne("a drawing", (d) => addDrawing(d, asset));
    });
  const write = () => addOne("words", (d) => addLettering(d, store.getState().selected));
  return (
    <div className="grid gap-1.5 p-3">
      <DropAnywhere take={(files) => void replace(files[0])} text="Drop the picture in the place of this one" />
      <FileInput at={replaced} label="Picture file" accept={PICTURES} take={replace} />
      <FileInput at={added} label="One more picture file" accept={PICTURES} take={add} />
      <FileInput at={drawn} label="Drawing file" accept=".svg,image/svg+xml,.stl,model/stl" take={draw} />
      {hasPicture && (
        <button className="btn w-full border-dashed !font-normal text-soft" onClick={() => replaced.current!.click()}>
          <ImagePlus size={16} /> Replace the picture
        </button>
      )}
      {!isLocked && (
        <DropdownMenu.Root modal={false}>
          <DropdownMenu.Trigger className="btn w-full border-dashed !font-normal text-soft">
            <Plus size={16} /> Add
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content align="start" sideOffset={4} className={MENU}>
              <Item Icon={Type} title="Words" about="carved along with what is there" onSelect={write} />
              <Item
                Icon={Images}
                title={hasPicture ? "One more picture" : "A picture"}
                about="with a tone and an outline of its own"
                onSelect={() => added.current!.click()}
              />
              <Item
                Icon={PenLine}
                title="A drawing or solid"
                about="SVG shapes as they were drawn, or an STL's surface"
                onSelect={() => drawn.current!.click()}
              />
              <DropdownMenu.Sub>
                <DropdownMenu.SubTrigger className={ITEM}>
                  <Words Icon={Bookmark} title="A kept height" about="from the shop" />
                  <ChevronRight size={15} className="text-faint" />
                </DropdownMenu.SubTrigger>
                <DropdownMenu.Portal>
                  <DropdownMenu.SubContent sideOffset={6} className={`max-h-[420px] overflow-y-auto ${MENU}`}>
                    <KeptHeights />
                  </DropdownMenu.SubContent>
                </DropdownMenu.Portal>
              </DropdownMenu.Sub>
              <Item
                Icon={Ruler}
                title="One more board"
                about="of the same makings, with its own zero and cuts"
                disabled={isBoardsFull}
                onSelect={() => changeBoards("add a board", addBoard)}
              />
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      )}
    </div>
  );
}

interface WordsProps {
  Icon: LucideIcon;
  title: string;
  about: string;
}

function Words({ Icon, title, about }: WordsProps) {
  return (
    <>
      <Icon size={16} className="shrink-0 text-soft" />
      <span className="grid flex-1">
        <span className="font-semibold">{title}</span>
        <span className="text-[13px] leading-4 text-soft">{about}</span>
      </span>
    </>
  );
}

function Item({ onSelect, disabled, ...words }: WordsProps & { onSelect(): void; disabled?: boolean }) {
  return (
    <DropdownMenu.Item className={ITEM} disabled={disabled} onSelect={onSelect}>
      <Words {...words} />
    </DropdownMenu.Item>
  );
}

interface FileInputProps {
  at: RefObject<HTMLInputElement | null>;
  label: string;
  accept: string;
  take(file?: File): Promise<void>;
}

/** A file that is chosen. It is forgotten at once: else the same one, mended and chosen again, would be no change. */
function FileInput({ at, label, accept, take }: FileInputProps) {
  return (
    <input
      ref={at}
      type="file"
      accept={accept}
      className="hidden"
      aria-label={label}
      onChange={(e) => {
        const file = e.target.files?.[0];
        e.target.value = "";
        void take(file);
      }}
    />
  );
}
