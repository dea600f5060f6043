"use client";
import { startTransition, useMemo, useRef, useState, type KeyboardEvent, type ReactNode } from "react";
import { Download, Plus, Search, Undo2, Upload } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { Entry } from "@oaken/core/shop/column";
import type { Part } from "@oaken/core/shop/parts";
import type { Fault } from "@oaken/core/shop/table";
import type { Unit } from "@oaken/core/units";
import type { Kept } from "../../server/shop.ts";
import { Toggle } from "../../ui/toggle.tsx";
import { UnitToggle } from "../../ui/unit-toggle.tsx";
import { useUnit } from "../../ui/use-unit.ts";
import { type Room, ShopHeader } from "../shop-header.tsx";
import { Beside } from "./beside.tsx";
import { useEntries } from "./entries.ts";
import { Grid } from "./grid.tsx";

interface ShopPageProps {
  part: Part;
  entries: readonly Kept[];
  here: Room;
  /** between the tables of a room that has several */
  among?: ReactNode;
  /** jobs begin with the first one */
  hasUsual?: boolean;
  picture?(entry: Entry, unit: Unit): ReactNode;
  below?(entry: Entry, unit: Unit): ReactNode;
}

const SHELVES = [
  { value: "in use", label: "in use" },
  { value: "put aside", label: "put aside" },
] as const;

/** A part of the shop: its table, and beside it the entry that is chosen. */
export function ShopPage({ part, entries, here, among, picture, below, hasUsual = false }: ShopPageProps) {
  const { kept, isSaved, wrong, faults, undoes, actions } = useEntries(part, entries);
  const [unit, setUnit] = useUnit();
  const [search, setSearch] = useState("");
  /** how often the search was emptied other than by typing */
  const [cleared, setCleared] = useState(0);
  const [shelf, setShelf] = useState<(typeof SHELVES)[number]["value"]>("in use");
  const [chosen, setChosen] = useState<string | null>(entries[0]?.entry.id ?? null);
  const [typed, setTyped] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const shown = useMemo(
    () => kept.filter((k) => k.retired === (shelf === "put aside")).map((k) => k.entry),
    [kept, shelf],
  );
  const columns = useMemo(() => part.columns.filter((c) => !c.more), [part]);
  const now = kept.find((k) => k.entry.id === chosen) ?? null;
  const add = (like: Entry) => {
    setShelf("in use");
    setSearch("");
    setCleared(cleared + 1);
    setChosen(actions.add(like));
  };
  const keys = (e: KeyboardEvent) => {
    const isTyping = (e.target as HTMLElement).matches("input, textarea, select");
    if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "z" && !isTyping) {
      e.preventDefault();
      actions.undo();
    }
  };
  return (
    <div className="flex h-full flex-col" onKeyDown={keys}>
      <ShopHeader here={here}>
        <span role="status" className="text-[13px] text-soft">
          {isSaved ? "saved" : "saving …"}
        </span>
        <UnitToggle unit={unit} onChange={setUnit} />
      </ShopHeader>
      <div className="flex min-h-0 flex-1">
        <main className="flex min-w-0 flex-1 flex-col gap-3 p-4">
          <div className="flex flex-wrap items-center gap-2">
            <h1 className="mr-2 text-[22px]">{part.title}</h1>
            {among}
            <SearchField key={cleared} label={`Search ${part.title.toLowerCase()}`} look={setSearch} />
            <Toggle label="Shelf" value={shelf} options={SHELVES} onChange={setShelf} />
            <span className="flex-1" />
            <button
              className="btn btn-plain"
              disabled={!undoes}
              title={undoes ? `Undo: ${undoes}` : "Nothing to undo"}
              onClick={actions.undo}
            >
              <Undo2 size={16} /> Undo
            </button>
            <Files part={part} choose={() => file.current?.click()} />
            <input
              ref={file}
              type="file"
              hidden
              accept=".csv,.json,.txt"
              aria-label={`Import ${part.id}`}
              onChange={(e) => {
                const [taken] = e.target.files ?? [];
                e.target.value = "";
                if (taken) void actions.take(taken);
              }}
            />
            <button className="btn btn-primary" disabled={!now} onClick={() => add(now!.entry)}>
              <Plus size={16} /> Add a {part.one}
            </button>
          </div>
          <Said wrong={wrong} faults={faults} dismiss={actions.dismiss} />
          <Grid
            label={part.title}
            columns={columns}
            entries={shown}
            search={search}
            unit={unit}
            chosen={chosen}
            choose={setChosen}
            set={actions.set}
            say={setTyped}
          />
          <p role="alert" className={typed ? "text-danger" : "hidden"}>
            {typed}
          </p>
          <p className={typed ? "hidden" : "text-[12.5px] text-soft"}>
            {shown.length} {shown.length === 1 ? part.one : part.id} · arrows move, Enter or typing changes a cell,
            Escape leaves it · jobs keep copies: what they hold stays as it was.
          </p>
        </main>
        {now && (
          <Beside
            columns={part.columns}
            entry={now.entry}
            retired={now.retired}
            unit={unit}
            picture={picture?.(now.entry, unit)}
            below={below?.(now.entry, unit)}
            duplicate={() => add(now.entry)}
            makeFirst={hasUsual && !now.retired ? () => void actions.makeFirst(now.entry.id) : undefined}
            isFirst={hasUsual && shown[0]?.id === now.entry.id}
            retire={(r) => actions.retire(now.entry.id, r)}
            set={(key, value, label) => actions.set(now.entry.id, key, value, label)}
          />
        )}
      </div>
    </div>
  );
}

/** Where a search is typed: what it finds follows, and never holds up the next letter. */
function SearchField({ label, look }: { label: string; look(text: string): void }) {
  const [text, setText] = useState("");
  return (
    <label className="box flex w-48 items-center gap-2 !font-sans">
      <Search size={15} className="text-faint" />
      <input
        aria-label={label}
        placeholder="Any word or number"
        className="w-full bg-transparent outline-none placeholder:text-faint"
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          startTransition(() => look(e.target.value));
        }}
      />
    </label>
  );
}

/** In and out as files. */
function Files({ part, choose }: { part: Part; choose(): void }) {
  const item =
    "flex min-h-[32px] cursor-pointer items-center gap-2 rounded px-2 outline-none data-[highlighted]:bg-sunk";
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="btn">Files</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          sideOffset={4}
          align="end"
          className="z-50 rounded-md border border-line bg-raised p-1 shadow-card"
        >
          <DropdownMenu.Item className={item} onSelect={choose}>
            <Upload size={15} /> Import a table (CSV) or JSON …
          </DropdownMenu.Item>
          {["csv", "json"].map((as) => (
            <DropdownMenu.Item key={as} className={item} asChild>
              <a href={`/api/shop/${part.id}/file?as=${as}`} download>
                <Download size={15} /> Export as {as === "csv" ? "a table (CSV)" : "JSON"}
              </a>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** What went wrong: a sentence, or every fault of a file with its place. */
function Said({ wrong, faults, dismiss }: { wrong: string | null; faults: readonly Fault[]; dismiss(): void }) {
  if (!wrong && faults.length === 0) return null;
  return (
    <div
      role="alert"
      className="flex max-h-40 items-start gap-3 overflow-auto rounded-md border border-danger/40 bg-danger/5 p-3"
    >
      <div className="flex-1">
        {wrong}
        {faults.length > 0 && (
          <>
            <p className="font-semibold">Nothing was taken from the file. Mend these and choose it again:</p>
            <ul className="mt-1">
              {faults.map((f, i) => (
                <li key={i}>
                  Row {f.row}: {f.message}
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
      <button className="btn !h-7" onClick={dismiss}>
        Close
      </button>
    </div>
  );
}
