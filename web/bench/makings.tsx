"use client";
import { useEffect, useRef } from "react";
import { ImagePlus, Plus } from "lucide-react";
import { outlineOf, pictureUnder } from "@oaken/core/job/chain";
import type { JobNode } from "@oaken/core/job/document";
import { addPicture } from "@oaken/core/job/edit";
import { materialById } from "@oaken/core/cutters/materials";
import { formatLength } from "@oaken/core/units";
import { DropAnywhere, PICTURES } from "../shop/drop.tsx";
import { uploadPicture } from "../ui/api.ts";
import type { Built, DrawnChain } from "../compute/messages.ts";
import { useActions, useBench, useBenchStore } from "./context.tsx";

/** The left side: what the piece is made from, as a chain of live pictures. */
export function Makings() {
  const { doc, built, selected, working, unit } = useBench((s) => s);
  const { select } = useActions();
  const material = materialById(doc.stock.material);
  const n = (v: number) => formatLength(v, unit);
  const about = (node: JobNode): string => {
    const chain = built?.chains[outlineOf(doc, node.id) ?? ""];
    if (node.kind === "picture") {
      const size = chain?.measured;
      return size ? `${n(size.width)} × ${n(size.height)} ${unit}` : `${node.asset!.width} × ${node.asset!.height} px`;
    }
    if (node.kind === "tone")
      return built?.resolved[node.id]?.invert?.value ? "light parts are ink" : "dark parts are ink";
    return chain?.outline
      ? `${chain.outline.pieces} ${chain.outline.pieces === 1 ? "contour" : "contours"}`
      : built
        ? "nothing traced"
        : "…";
  };
  return (
    <nav
      aria-label="Makings"
      className="flex w-[232px] shrink-0 flex-col overflow-y-auto border-r border-line bg-film max-[1100px]:w-[200px]"
    >
      <h2 className="px-3 pb-1 pt-3 text-[14px] text-soft">Makings</h2>
      <Entry
        id="stock"
        name={material.name}
        about={`${n(doc.stock.width)} × ${n(doc.stock.height)} × ${n(doc.stock.thickness)} ${unit}`}
        selected={selected}
        select={select}
      >
        <StockPicture face={material.face} grain={material.grain} />
      </Entry>
      {doc.nodes.map((node) => (
        <Entry
          key={node.id}
          id={node.id}
          name={node.name}
          about={about(node)}
          selected={selected}
          select={select}
          indent={node.kind !== "picture"}
          working={working?.step === node.id}
        >
          {node.kind === "picture" || !built ? (
            <SmallPicture sha={pictureUnder(doc, node.id)?.asset?.sha} faded={node.kind !== "picture"} />
          ) : node.kind === "tone" ? (
            <TonePicture tone={built?.chains[outlineOf(doc, node.id) ?? ""]?.tone ?? null} />
          ) : (
            <OutlinePicture chain={built?.chains[node.id] ?? null} />
          )}
        </Entry>
      ))}
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
  working,
  children,
}: {
  id: string;
  name: string;
  about: string;
  selected: string;
  select(id: string): void;
  indent?: boolean;
  working?: boolean;
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
        <span className="block truncate font-semibold">{name}</span>
        <span className="block truncate text-[12.5px] leading-4 text-soft">{about}</span>
      </span>
      {working && <span className="catching-up absolute inset-x-3 bottom-0 h-[2px]" />}
    </button>
  );
}

/** The picture itself; faded where it stands for what is still being made from it. */
function SmallPicture({ sha, faded }: { sha: string | undefined; faded: boolean }) {
  if (!sha) return null;
  const look = `h-full w-full object-cover ${faded ? "opacity-40 grayscale" : ""}`;
  return <img src={`/api/assets/${sha}/picture?side=120`} alt="" className={look} />;
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

function TonePicture({ tone }: { tone: Built["tone"] }) {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!tone || !ref.current) return;
    const rgba = new Uint8ClampedArray(4 * tone.grey.length);
    tone.grey.forEach((g, i) => rgba.set([g, g, g, 255], 4 * i));
    ref.current.getContext("2d")!.putImageData(new ImageData(rgba, tone.width, tone.height), 0, 0);
  }, [tone]);
  return (
    <canvas ref={ref} width={tone?.width ?? 1} height={tone?.height ?? 1} className="h-full w-full object-cover" />
  );
}

function OutlinePicture({ chain }: { chain: DrawnChain | null }) {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const g = ref.current?.getContext("2d");
    if (!g || !chain?.outline || !chain.place) return;
    const { x0, y0, width, height } = chain.place;
    const k = Math.min(96 / width, 72 / height);
    g.clearRect(0, 0, 96, 72);
    g.setTransform(k, 0, 0, -k, (96 - width * k) / 2 - x0 * k, 72 - (72 - height * k) / 2 + y0 * k);
    const { xy, starts } = chain.outline.rings;
    g.beginPath();
    for (let q = 0; q < starts.length - 1; q++) {
      for (let i = starts[q]; i < starts[q + 1]; i++)
        i === starts[q] ? g.moveTo(xy[2 * i], xy[2 * i + 1]) : g.lineTo(xy[2 * i], xy[2 * i + 1]);
      g.closePath();
    }
    g.fillStyle = "#d5e6de";
    g.fill("evenodd");
    g.strokeStyle = "#1f6b57";
    g.lineWidth = 1.4 / k;
    g.stroke();
    g.setTransform(1, 0, 0, 1, 0, 0);
  }, [chain]);
  return <canvas ref={ref} width={96} height={72} className="h-full w-full" />;
}

/** Another picture in the place of the one at hand, everything downstream kept; or one more beside it. */
function ReplacePicture() {
  const replaced = useRef<HTMLInputElement>(null);
  const added = useRef<HTMLInputElement>(null);
  const store = useBenchStore();
  const { change, select } = useActions();
  const take = async (file: File | undefined, work: (asset: NonNullable<JobNode["asset"]>) => void) => {
    if (!file) return;
    try {
      work(await uploadPicture(file));
    } catch (e) {
      store.setState({ failed: (e as Error).message });
    }
  };
  const replace = (file?: File) =>
    take(file, (asset) => {
      const { doc, selected } = store.getState();
      const reads = (id: string | undefined) => doc.nodes.find((n) => n.id === id)?.reads[0];
      const at = reads(reads(outlineOf(doc, selected)));
      change("replace the picture", (d) => {
        const p = d.nodes.find((q) => q.id === at) ?? d.nodes.find((q) => q.kind === "picture")!;
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
  return (
    <div className="grid gap-1.5 p-3">
      <DropAnywhere take={(files) => void replace(files[0])} text="Drop the picture in the place of this one" />
      <input
        ref={replaced}
        type="file"
        accept={PICTURES}
        className="hidden"
        aria-label="Picture file"
        onChange={(e) => void replace(e.target.files?.[0])}
      />
      <input
        ref={added}
        type="file"
        accept={PICTURES}
        className="hidden"
        aria-label="One more picture file"
        onChange={(e) => void add(e.target.files?.[0])}
      />
      <button className="btn w-full border-dashed !font-normal text-soft" onClick={() => replaced.current!.click()}>
        <ImagePlus size={16} /> Replace the picture
      </button>
      <button className="btn w-full border-dashed !font-normal text-soft" onClick={() => added.current!.click()}>
        <Plus size={16} /> One more picture
      </button>
    </div>
  );
}
