"use client";
import { useEffect, useRef } from "react";
import { ImagePlus } from "lucide-react";
import { materialById } from "@oaken/core/cutters/materials";
import { formatLength } from "@oaken/core/units";
import { DropAnywhere, PICTURES } from "../shop/drop.tsx";
import { uploadPicture } from "../ui/api.ts";
import type { Built } from "../compute/messages.ts";
import { useActions, useBench, useBenchStore } from "./context.tsx";

/** The left side: what the piece is made from, as a chain of live pictures. */
export function Makings() {
  const { doc, built, selected, working, unit } = useBench((s) => s);
  const { select } = useActions();
  const material = materialById(doc.stock.material);
  const n = (v: number) => formatLength(v, unit);
  const about = (kind: string): string => {
    const r = (id: string) => built?.resolved[id];
    if (kind === "picture") {
      const p = doc.nodes.find((q) => q.kind === "picture")!;
      return built?.place ? `${n(built.place.width)} × ${n(built.place.height)} ${unit}` : `${p.asset!.width} × ${p.asset!.height} px`;
    }
    if (kind === "tone") return r("tone")?.invert?.value ? "light parts are ink" : "dark parts are ink";
    return built?.outline ? `${built.outline.pieces} contours` : "…";
  };
  return (
    <nav aria-label="Makings" className="flex w-[232px] shrink-0 flex-col overflow-y-auto border-r border-line bg-film max-[1100px]:w-[200px]">
      <h2 className="px-3 pb-1 pt-3 text-[14px] text-soft">Makings</h2>
      <Entry id="stock" name={material.name} about={`${n(doc.stock.width)} × ${n(doc.stock.height)} × ${n(doc.stock.thickness)} ${unit}`} selected={selected} select={select}>
        <StockPicture face={material.face} grain={material.grain} />
      </Entry>
      {doc.nodes.map((node) => (
        <Entry key={node.id} id={node.id} name={node.name} about={about(node.kind)} selected={selected} select={select} indent={node.kind !== "picture"} working={working?.step === node.id}>
          {node.kind === "picture" && node.asset ? (
            <img src={`/api/assets/${node.asset.sha}/picture?side=120`} alt="" className="h-full w-full object-cover" />
          ) : node.kind === "tone" ? (
            <TonePicture tone={built?.tone ?? null} />
          ) : (
            <OutlinePicture built={built} />
          )}
        </Entry>
      ))}
      <ReplacePicture />
    </nav>
  );
}

function Entry({ id, name, about, selected, select, indent, working, children }: { id: string; name: string; about: string; selected: string; select(id: string): void; indent?: boolean; working?: boolean; children: React.ReactNode }) {
  return (
    <button onClick={() => select(id)} aria-current={selected === id} className={`relative flex items-center gap-2.5 py-1.5 pr-2 text-left hover:bg-sunk aria-[current=true]:bg-sunk ${indent ? "pl-8" : "pl-3"}`}>
      {indent && <span aria-hidden="true" className="absolute bottom-1/2 left-[19px] top-[-8px] w-2.5 rounded-bl border-b border-l border-line" />}
      <span className={`h-9 w-12 shrink-0 overflow-hidden rounded bg-raised ring-1 ${selected === id ? "ring-2 ring-spruce" : "ring-line"}`}>{children}</span>
      <span className="min-w-0">
        <span className="block truncate font-semibold">{name}</span>
        <span className="block truncate text-[12.5px] leading-4 text-soft">{about}</span>
      </span>
      {working && <span className="catching-up absolute inset-x-3 bottom-0 h-[2px]" />}
    </button>
  );
}

function StockPicture({ face, grain }: { face: readonly number[]; grain: number }) {
  const c = (k: number) => `rgb(${face.map((v) => Math.round(v * k)).join(" ")})`;
  return (
    <svg viewBox="0 0 48 36" className="h-full w-full" preserveAspectRatio="none" aria-hidden="true">
      <rect width="48" height="36" fill={c(1)} />
      {grain > 0.2 && [6, 13, 17, 25, 31].map((y, i) => <path key={y} d={`M0 ${y}C12 ${y - 4 + i} 26 ${y + 4} 48 ${y - 1}`} stroke={c(0.86)} fill="none" strokeWidth={1 + (i % 2)} />)}
    </svg>
  );
}

function TonePicture({ tone }: { tone: Built["tone"] }) {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!tone || !ref.current) return;
    const rgba = new Uint8ClampedArray(4 * tone.grey.length);
    tone.grey.forEach((g, i) => rgba.set([g, g, g, 255], 4 * i));
    ref.current.getContext("2d")!.putImageData(new ImageData(rgba, tone.width, tone.height), 0, 0);
  }, [tone]);
  return <canvas ref={ref} width={tone?.width ?? 1} height={tone?.height ?? 1} className="h-full w-full object-cover" />;
}

function OutlinePicture({ built }: { built: Built | null }) {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const g = ref.current?.getContext("2d");
    if (!g || !built?.outline || !built.place) return;
    const { x0, y0, width, height } = built.place;
    const k = Math.min(96 / width, 72 / height);
    g.clearRect(0, 0, 96, 72);
    g.setTransform(k, 0, 0, -k, (96 - width * k) / 2 - x0 * k, 72 - (72 - height * k) / 2 + y0 * k);
    const { xy, starts } = built.outline.rings;
    g.beginPath();
    for (let q = 0; q < starts.length - 1; q++) {
      for (let i = starts[q]; i < starts[q + 1]; i++) i === starts[q] ? g.moveTo(xy[2 * i], xy[2 * i + 1]) : g.lineTo(xy[2 * i], xy[2 * i + 1]);
      g.closePath();
    }
    g.fillStyle = "#d5e6de";
    g.fill("evenodd");
    g.strokeStyle = "#1f6b57";
    g.lineWidth = 1.4 / k;
    g.stroke();
    g.setTransform(1, 0, 0, 1, 0, 0);
  }, [built]);
  return <canvas ref={ref} width={96} height={72} className="h-full w-full" />;
}

/** Another picture in the place of this one: everything downstream stays. */
function ReplacePicture() {
  const input = useRef<HTMLInputElement>(null);
  const store = useBenchStore();
  const { change } = useActions();
  const replace = async (file: File) => {
    try {
      const asset = await uploadPicture(file);
      change("replace the picture", (d) => {
        const p = d.nodes.find((q) => q.kind === "picture")!;
        p.asset = asset;
        p.name = asset.name;
      });
    } catch (e) {
      store.setState({ failed: (e as Error).message });
    }
  };
  return (
    <div className="p-3">
      <DropAnywhere take={(files) => void replace(files[0])} text="Drop the picture in the place of this one" />
      <input ref={input} type="file" accept={PICTURES} className="hidden" aria-label="Picture file" onChange={(e) => e.target.files?.[0] && void replace(e.target.files[0])} />
      <button className="btn w-full border-dashed !font-normal text-soft" onClick={() => input.current!.click()}>
        <ImagePlus size={16} /> Replace the picture
      </button>
    </div>
  );
}
