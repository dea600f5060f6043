"use client";
import Link from "next/link";
import { type ReactNode, useMemo, useState } from "react";
import { ChevronDown, ChevronRight } from "lucide-react";
import { cutKind } from "@oaken/core/cuts/register";
import { isOpen, openWords } from "@oaken/core/job/lock";
import { cutSettings } from "@oaken/core/job/contexts";
import type { JobMaking } from "@oaken/core/job/document";
import { makingKind } from "@oaken/core/makings/register";
import { type Field, type Resolved, type Settings } from "@oaken/core/settings/fields";
import { CutterShape } from "../ui/cutter-shape.tsx";
import { useBench, useParts, useSpoken } from "./context.tsx";
import { FieldRow } from "./field-row.tsx";
import { Head } from "./slip-head.tsx";
import { StockSlip } from "./stock-slip.tsx";
import { CutterPick } from "./cutter-pick.tsx";
import { BorderPick, LeftStanding, ShapePick, StopRow } from "./cut-rows.tsx";
import { MakingHead } from "./making-head.tsx";
import { Reads } from "./reads.tsx";
import { RememberLight, RememberPace } from "./remember.tsx";
import { valuesOf } from "./values.ts";
import { viewOf } from "./views/register.ts";
import { useSeen } from "./views/seen.ts";

/** The right side: the settings of what is selected, drawn from its kind's description. */
export function Slip() {
  const { doc, selected, built } = useParts("doc", "selected", "built");
  const begun = useBench((s) => s.whole.begun);
  const early = useEarly();
  const say = useSpoken();
  const node = doc.makings.find((n) => n.id === selected);
  const cut = doc.cuts.find((c) => c.id === selected);
  return (
    <aside
      aria-label="Slip"
      className="flex w-[296px] shrink-0 flex-col overflow-y-auto border-l border-line bg-film max-[1100px]:w-[264px]"
    >
      <LockNote />
      {node && <MakingSlip making={node} />}
      {cut && (
        <Lockable isLocked={begun !== undefined}>
          <Head
            title={cut.name}
            about={say(
              cutKind(cut.kind).summary(valuesOf(built?.resolved[cut.id] ?? early[cut.id], cut.settings), cut.cutter),
            )}
            shape={<CutterShape cutter={cut.cutter} />}
          />
          {cut.stop && <StopRow cut={cut} />}
          <ShapePick cut={cut} />
          <BorderPick cut={cut} />
          <CutterPick cut={cut} />
          <LeftStanding cut={cut.id} />
          <RememberPace cut={cut} />
          <Fields part={cut.id} fields={cutKind(cut.kind).fields} own={cut.settings} />
        </Lockable>
      )}
      {!node && !cut && (
        <Lockable isLocked={begun !== undefined}>
          <StockSlip />
        </Lockable>
      )}
    </aside>
  );
}

/** What a starting job locks can be read and not changed. */
function Lockable({ isLocked, children }: { isLocked: boolean; children: ReactNode }) {
  return (
    <fieldset disabled={isLocked} className={`min-w-0 ${isLocked ? "opacity-60" : ""}`}>
      {children}
    </fieldset>
  );
}

/** Of a job that was begun from a starting job: what is open, and where the others are. */
function LockNote() {
  const begun = useBench((s) => s.whole.begun);
  if (!begun) return null;
  return (
    <p className="border-b border-line bg-sunk px-3 py-2 text-[12.5px] leading-[17px]">
      Begun from{" "}
      <Link href={`/class/${begun.id}`} className="font-semibold text-spruce underline">
        {begun.name}
      </Link>
      . Open is {openWords(begun.rules)}; the rest is locked.
    </p>
  );
}

/** The slip of a making: what stands above its fields and below them follows from what it gives. */
function MakingSlip({ making }: { making: JobMaking }) {
  const view = viewOf(making);
  const figures = view.figures(useSeen()(making));
  const begun = useBench((s) => s.whole.begun);
  const isLocked = (key?: string) => begun !== undefined && !isOpen(begun.rules, making, key);
  const { fields } = makingKind(making.kind);
  return (
    <>
      <Lockable isLocked={isLocked()}>
        <Head title={making.name} about={figures} />
        <MakingHead making={making}>{view.Beside && <view.Beside key={making.id} part={making.id} />}</MakingHead>
        <view.Above part={making.id} />
        <Reads making={making} />
        <RememberLight making={making} />
      </Lockable>
      <Fields part={making.id} fields={fields} own={making.settings} isLocked={isLocked} />
      {view.Below && (
        <Lockable isLocked={isLocked()}>
          <view.Below part={making.id} />
        </Lockable>
      )}
    </>
  );
}

/** Cuts' settings before they are built: a slip can be read and used at once. */
function useEarly(): Record<string, Record<string, Resolved>> {
  const { doc, built } = useParts("doc", "built");
  return useMemo(() => {
    if (built && doc.cuts.every((c) => built.resolved[c.id])) return {};
    try {
      return cutSettings(doc);
    } catch {
      // The build says what is wrong with the job.
      return {};
    }
  }, [doc, built]);
}

interface FieldsProps {
  part: string;
  fields: readonly Field[];
  own: Settings;
  /** of one of them by itself; none is where it is not given */
  isLocked?(key: string): boolean;
}

function Fields({ part, fields, own, isLocked = () => false }: FieldsProps) {
  const early = useEarly();
  const resolved = useBench((s) => s.built?.resolved[part]) ?? early[part];
  const [open, setOpen] = useState(false);
  if (!resolved) return <p className="px-3 py-2 text-soft">Working …</p>;
  const values = valuesOf(resolved, own);
  const shown = fields.filter((f) => !f.when || f.when(values));
  const few = shown.filter((f) => !f.more);
  const more = shown.filter((f) => f.more);
  const row = (f: Field) => (
    <Lockable key={f.key} isLocked={isLocked(f.key)}>
      <FieldRow part={part} f={f} value={values[f.key]} own={own[f.key]} r={resolved[f.key]} />
    </Lockable>
  );
  return (
    <div className="px-3 pb-4">
      {few.map(row)}
      {more.length > 0 && (
        <button
          className="flex h-9 w-full items-center justify-between border-t border-line text-left text-soft"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          {more
            .slice(0, 3)
            .map((f) => f.label.toLowerCase())
            .join(", ")}
          {open ? <ChevronDown size={16} /> : <ChevronRight size={16} />}
        </button>
      )}
      {open && more.map(row)}
    </div>
  );
}
