"use client";
import { useEffect, useState } from "react";
import { Download, FileCode2, FileImage, FilePen, OctagonX, TriangleAlert } from "lucide-react";
import { describeCutter } from "@oaken/core/cutters/profile";
import { type JobDocument, stopWords, zeroPoint, zeroWords } from "@oaken/core/job/document";
import { DIALECTS } from "@oaken/core/output/gcode/dialects";
import { fileName } from "@oaken/core/output/gcode/writer";
import { figures } from "@oaken/core/toolpath/toolpath";
import { formatLength, formatTime } from "@oaken/core/units";
import type { WrittenFile } from "../compute/messages.ts";
import { api } from "../ui/api.ts";
import { Pick } from "../ui/pick.tsx";
import { useActions, useBench, useBenchStore, useDesk, useSpoken } from "./context.tsx";

const ICON = { program: FileCode2, drawing: FilePen, "height map": FileImage, picture: FileImage };

/** Programs and drawings, ready to take to the machine. */
export function Write() {
  const { doc, built, revision, unit, id, save } = useBench((s) => s);
  const store = useBenchStore();
  const desk = useDesk();
  const say = useSpoken();
  const { change } = useActions();
  const [files, setFiles] = useState<WrittenFile[] | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  useEffect(() => {
    let wanted = true;
    setFiles(null);
    setWrong(null);
    desk.outputs(doc, `revision ${revision}, ${new Date().toISOString().slice(0, 16).replace("T", " ")}`).then(
      (f) => wanted && setFiles(f),
      (e: Error) => wanted && setWrong(e.message),
    );
    return () => {
      wanted = false;
    };
  }, [doc, revision, desk]);
  const stops = (built?.findings ?? []).filter((f) => f.severity === "stop");
  const warnings = (built?.findings ?? []).filter((f) => f.severity === "warning");
  const n = (v: number) => formatLength(v, unit);

  const keep = (bytes: Uint8Array, name: string) => {
    const url = URL.createObjectURL(new Blob([bytes as BlobPart]));
    const a = document.createElement("a");
    a.href = url;
    a.download = name;
    a.click();
    setTimeout(() => URL.revokeObjectURL(url), 10_000);
  };
  const noteWritten = () => {
    store.setState({ written: revision });
    void api(`/api/jobs/${id}`, { method: "PATCH", json: { written: revision } }).catch(() => {});
  };
  const all = async () => {
    const { zipSync } = await import("fflate");
    keep(zipSync(Object.fromEntries(files!.map((f) => [f.name, f.bytes]))), `${fileName(doc.name)}-rev${revision}.zip`);
    noteWritten();
  };

  return (
    <main className="flex min-h-0 flex-1 overflow-auto">
      <div className="mx-auto grid w-full max-w-[1120px] grid-cols-[1fr_360px] gap-6 p-6">
        <section>
          <h1 className="text-[22px]">Write</h1>
          <p className="mb-4 text-soft">
            {doc.name}, revision {revision}
            {save.state !== "saved" && " (saving)"}. Coordinates from the {zeroWords(doc.stock.zero)}.
          </p>
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
              {wrong}
            </p>
          )}
          {!files && !wrong && <p className="catching-up rounded-md border border-line p-4 text-soft">Writing …</p>}
          {files && (
            <>
              <ul className="card divide-y divide-line">
                {files.map((f) => {
                  const Icon = ICON[f.kind];
                  const cuts = built?.cuts.filter((c) => f.program?.cuts.includes(c.id)) ?? [];
                  const boxes = cuts.map((c) => figures(c.toolpath));
                  const z = Math.min(...boxes.map((b) => b.minZ));
                  const zero = zeroPoint(doc.stock);
                  return (
                    <li key={f.name} className="flex items-center gap-3 p-3">
                      <Icon size={22} className="shrink-0 text-soft" />
                      <div className="min-w-0 flex-1">
                        <div className="num truncate font-semibold">{f.name}</div>
                        <div className="text-[13px] text-soft">
                          {f.program ? aboutProgram(f.program.lines, cuts, doc) : `${f.kind} · ${size(f.bytes)}`}
                        </div>
                        {f.kind === "program" && boxes.length > 0 && (
                          <div className="num text-[12.5px] text-soft">
                            x {n(Math.min(...boxes.map((b) => b.minX)) - zero.x)} …{" "}
                            {n(Math.max(...boxes.map((b) => b.maxX)) - zero.x)} · y{" "}
                            {n(Math.min(...boxes.map((b) => b.minY)) - zero.y)} …{" "}
                            {n(Math.max(...boxes.map((b) => b.maxY)) - zero.y)} · down to z {n(z - zero.z)} {unit}
                          </div>
                        )}
                      </div>
                      <button
                        className="btn"
                        disabled={f.kind === "program" && stops.length > 0}
                        aria-label={`Save ${f.name}`}
                        onClick={() => {
                          keep(f.bytes, f.name);
                          if (f.kind === "program") noteWritten();
                        }}
                      >
                        <Download size={15} /> Save
                      </button>
                    </li>
                  );
                })}
              </ul>
              <div className="mt-4 flex gap-3">
                <button className="btn btn-primary" disabled={stops.length > 0} onClick={() => void all()}>
                  <Download size={16} /> Save everything
                </button>
                <a className="btn" href={`/api/jobs/${id}/file`} download>
                  Job file, with its picture
                </a>
              </div>
              {stops.length > 0 && (
                <p className="mt-2 text-soft">Programs wait until what stops is mended on the bench.</p>
              )}
            </>
          )}
        </section>
        <aside className="grid content-start gap-4">
          <div className="card p-4">
            <h2 className="mb-2 text-[15px]">How the machine wants it</h2>
            <Pick
              label="Dialect"
              className="w-full justify-between"
              value={doc.dialect}
              options={DIALECTS.map((d) => ({ value: d.id, label: d.name }))}
              onChange={(v) => change("dialect", (d) => void (d.dialect = v))}
            />
            <p className="mt-2 text-[13px] text-soft">
              {doc.machine.name}: {say(`${Math.round(doc.machine.feedMost)} mm/min`)} at most
              {doc.machine.spindleMost > 1 ? `, ${Math.round(doc.machine.spindleMost / 1000)} 000/min spindle` : ""}.
            </p>
          </div>
          <div className="card p-4">
            <h2 className="mb-2 text-[15px]">On the machine</h2>
            <StockDrawing />
            <ol className="mt-3 list-decimal pl-5 text-[13px]">
              <li>
                Measure the stock: {n(doc.stock.width)} × {n(doc.stock.height)} × {n(doc.stock.thickness)} {unit}.
              </li>
              <li>Zero at the {zeroWords(doc.stock.zero)}.</li>
              <li>Run the programs in the order of their numbers.</li>
              {doc.cuts
                .filter((c) => c.on && c.stop)
                .map((c) => (
                  <li key={c.id}>
                    Before {c.name}: <b>{stopWords(c.stop!)}</b>.
                  </li>
                ))}
            </ol>
          </div>
        </aside>
      </div>
    </main>
  );
}

/** The stock from above with its zero and the bounds of the cuts. */
function StockDrawing() {
  const { doc, built } = useBench((s) => s);
  const { width, height } = doc.stock;
  const z = zeroPoint(doc.stock);
  const b = built && cutBounds(built.surface);
  const pad = 0.09 * Math.max(width, height);
  const u = Math.max(width, height) / 100;
  return (
    <svg
      viewBox={`${-pad} ${-pad} ${width + 2 * pad} ${height + 2 * pad}`}
      className="w-full"
      role="img"
      aria-label="Stock from above with the work zero and the bounds of the cuts"
    >
      <rect width={width} height={height} fill="#efe3c8" stroke="#55605b" strokeWidth={0.5 * u} />
      {b && (
        <rect
          x={b.x0}
          y={height - b.y1}
          width={b.x1 - b.x0}
          height={b.y1 - b.y0}
          fill="#1f6b5722"
          stroke="#1f6b57"
          strokeWidth={0.5 * u}
          strokeDasharray={`${2 * u} ${1.5 * u}`}
        />
      )}
      <g transform={`translate(${z.x} ${height - z.y})`} stroke="#c8401f" strokeWidth={u} fill="none">
        <path d={`M${-4 * u} 0H${4 * u}M0 ${-4 * u}V${4 * u}`} />
        <circle r={2.4 * u} />
      </g>
      {built?.shown.shapes && (
        <path
          d={ringPath(built.shown.shapes.outline.rings, height)}
          fill="#1c2321"
          fillOpacity={0.55}
          fillRule="evenodd"
        />
      )}
    </svg>
  );
}

/** Bounds of everything that was cut, mm. */
function cutBounds(s: { cell: number; width: number; by: Uint8Array }) {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let at = 0; at < s.by.length; at++) {
    if (!s.by[at]) continue;
    const i = at % s.width;
    const j = (at - i) / s.width;
    x0 = Math.min(x0, i);
    x1 = Math.max(x1, i + 1);
    y0 = Math.min(y0, j);
    y1 = Math.max(y1, j + 1);
  }
  return x1 < 0 ? null : { x0: x0 * s.cell, x1: x1 * s.cell, y0: y0 * s.cell, y1: y1 * s.cell };
}

function ringPath(r: { xy: Float32Array; starts: Int32Array }, height: number): string {
  const parts: string[] = [];
  const every = Math.max(1, Math.round(r.xy.length / 40_000));
  for (let k = 0; k < r.starts.length - 1; k++) {
    for (let i = r.starts[k]; i < r.starts[k + 1]; i += every)
      parts.push(`${i === r.starts[k] ? "M" : "L"}${r.xy[2 * i].toFixed(2)} ${(height - r.xy[2 * i + 1]).toFixed(2)}`);
    parts.push("Z");
  }
  return parts.join("");
}

/** What a program holds: its cuts with their cutters, how long it is, how long it runs. */
function aboutProgram(lines: number, cuts: readonly { id: string; seconds: number }[], doc: JobDocument): string {
  const named = cuts
    .map((c) => doc.cuts.find((d) => d.id === c.id)!)
    .map((c) => `${c.name}, ${describeCutter(c.cutter)}`);
  const seconds = cuts.reduce((sum, c) => sum + c.seconds, 0);
  return [...named, `${lines.toLocaleString("en")} lines`, formatTime(seconds)].join(" · ");
}

function size(bytes: Uint8Array): string {
  const kilo = bytes.length / 1024;
  return `${kilo < 10 ? kilo.toFixed(1) : Math.round(kilo)} kB`;
}
