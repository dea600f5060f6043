import {
  Box,
  ClipboardList,
  Download,
  FileCode2,
  FileImage,
  FilePen,
  OctagonX,
  Printer,
  TriangleAlert,
} from "lucide-react";
import { describeCutter } from "@oaken/core/cutters/profile";
import { type BoardJob, zeroPoint, zeroWords } from "@oaken/core/job/document";
import { formatLength, formatTime } from "@oaken/core/units";
import type { WrittenBoard, WrittenFile } from "../../compute/messages.ts";
import { useBench, useSpoken } from "../context.tsx";

const ICON = { program: FileCode2, drawing: FilePen, "height map": FileImage, picture: FileImage, solid: Box };

/** A board with what is written for it; null while it is being written. */
export interface Writing {
  job: BoardJob;
  written: WrittenBoard | null;
  wrong: string | null;
}

export const stopsOf = ({ written }: Writing) => (written?.findings ?? []).filter((f) => f.severity === "stop");

/** The setup sheet: made when it is wanted. */
interface Sheet {
  name: string;
  open(): void;
  save(): void;
}

interface BoardFilesProps {
  of: Writing;
  title: string | null;
  keep(file: WrittenFile): void;
  sheet: Sheet;
}

/** What one board's job writes, with what speaks against running it. */
export function BoardFiles({ of, title, keep, sheet }: BoardFilesProps) {
  const { job, written, wrong } = of;
  const say = useSpoken();
  const stops = stopsOf(of);
  const warnings = (written?.findings ?? []).filter((f) => f.severity === "warning");
  return (
    <section aria-label={title ?? "Files"} className="mb-5">
      {title && (
        <h2 className="mb-1 text-[16px]">
          {title}{" "}
          <span className="font-sans text-[13px] font-normal text-soft">from the {zeroWords(job.stock.zero)}</span>
        </h2>
      )}
      {stops.map((f, i) => (
        <p key={i} role="alert" className="mb-2 flex gap-2 rounded-md border border-danger/40 bg-danger/5 p-3">
          <OctagonX size={18} className="mt-0.5 shrink-0 text-danger" /> {say(f.message)}
        </p>
      ))}
      {warnings.length > 0 && (
        <p className="mb-2 flex gap-2 rounded-md border border-amber/40 bg-amber/5 p-3">
          <TriangleAlert size={18} className="mt-0.5 shrink-0 text-amber" />
          <span>
            {say(
              warnings.length === 1
                ? warnings[0].message
                : `${warnings.length} warnings: ${warnings.map((f) => f.message).join(" ")}`,
            )}
          </span>
        </p>
      )}
      {wrong && (
        <p role="alert" className="rounded-md border border-danger/40 bg-danger/5 p-3">
          {say(wrong)}
        </p>
      )}
      {!written && !wrong && <p className="catching-up rounded-md border border-line p-4 text-soft">Writing …</p>}
      {written && (
        <ul className="card divide-y divide-line">
          {written.files.map((f) => (
            <FileRow key={f.name} file={f} job={job} isHeld={f.kind === "program" && stops.length > 0} keep={keep} />
          ))}
          <SheetRow sheet={sheet} />
        </ul>
      )}
      {stops.length > 0 && <p className="mt-2 text-soft">Programs wait until what stops is mended on the bench.</p>}
    </section>
  );
}

function SheetRow({ sheet }: { sheet: Sheet }) {
  return (
    <li className="flex items-center gap-3 p-3">
      <ClipboardList size={22} className="shrink-0 text-soft" />
      <div className="min-w-0 flex-1">
        <div className="num truncate font-semibold">{sheet.name}</div>
        <div className="text-[13px] text-soft">
          setup sheet: stock, zero, cutters in their order, a box to tick a step
        </div>
      </div>
      <button className="btn" onClick={sheet.open}>
        <Printer size={15} /> Open to print
      </button>
      <button className="btn" aria-label={`Save ${sheet.name}`} onClick={sheet.save}>
        <Download size={15} /> Save
      </button>
    </li>
  );
}

function FileRow({
  file: f,
  job,
  isHeld,
  keep,
}: {
  file: WrittenFile;
  job: BoardJob;
  isHeld: boolean;
  keep(file: WrittenFile): void;
}) {
  const unit = useBench((s) => s.unit);
  const n = (v: number) => formatLength(v, unit);
  const span = (from: number, to: number, zero: number) => `${n(from - zero)} … ${n(to - zero)}`;
  const zero = zeroPoint(job.stock);
  const box = f.program?.box;
  const Icon = ICON[f.kind];
  return (
    <li className="flex items-center gap-3 p-3">
      <Icon size={22} className="shrink-0 text-soft" />
      <div className="min-w-0 flex-1">
        <div className="num truncate font-semibold">{f.name}</div>
        <div className="text-[13px] text-soft">
          {f.program ? aboutProgram(f.program, job) : `${f.kind} · ${size(f.bytes)}`}
        </div>
        {box && (
          <div className="num text-[12.5px] text-soft">
            {`x ${span(box.minX, box.maxX, zero.x)} · y ${span(box.minY, box.maxY, zero.y)}`}
            {` · down to z ${n(box.minZ - zero.z)} ${unit}`}
          </div>
        )}
      </div>
      <button className="btn" disabled={isHeld} aria-label={`Save ${f.name}`} onClick={() => keep(f)}>
        <Download size={15} /> Save
      </button>
    </li>
  );
}

/** What a program holds: its cuts with their cutters, how long it is, how long it runs. */
function aboutProgram({ lines, cuts, seconds }: NonNullable<WrittenFile["program"]>, job: BoardJob): string {
  const named = job.cuts.filter((c) => cuts.includes(c.id)).map((c) => `${c.name}, ${describeCutter(c.cutter)}`);
  return [...named, `${lines.toLocaleString("en")} lines`, formatTime(seconds)].join(" · ");
}

function size(bytes: Uint8Array): string {
  const kilo = bytes.length / 1024;
  return `${kilo < 10 ? kilo.toFixed(1) : Math.round(kilo)} kB`;
}
