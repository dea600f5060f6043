"use client";
import { useEffect, useMemo, useRef, useState } from "react";
import { useRouter, useSearchParams } from "next/navigation";
import { CircleCheck, TriangleAlert } from "lucide-react";
import { MATERIALS } from "@oaken/core/cutters/materials";
import { cutterFromRack } from "@oaken/core/cutters/rack";
import { type JobDocument, USUAL_STOCK } from "@oaken/core/job/document";
import { OUTCOMES, startJob } from "@oaken/core/job/outcomes";
import { formatLength, formatTime, type Unit } from "@oaken/core/units";
import type { Begun } from "../compute/begin-messages.ts";
import { api } from "../ui/api.ts";
import { LengthField } from "../ui/length-field.tsx";
import { HomeLink } from "../ui/mark.tsx";
import { Pick } from "../ui/pick.tsx";
import { Toggle } from "../ui/toggle.tsx";
import { beginAddress, ChooseFile, DropAnywhere, PICTURES, useTaking, type Waiting, waitingPictures } from "./drop.tsx";

/** What of the stock a person has said: the rest is the outcome's own. */
const unusual = (stock: typeof USUAL_STOCK): Partial<typeof USUAL_STOCK> => Object.fromEntries(Object.entries(stock).filter(([k, v]) => v !== USUAL_STOCK[k as keyof typeof USUAL_STOCK]));

/** A dropped picture: what it is good for, at which size, and what it would become. */
export function BeginPage() {
  const query = useSearchParams();
  const router = useRouter();
  const taking = useTaking();
  const sha = query.get("asset") ?? "";
  const asset = useMemo(() => ({ sha, name: query.get("name") ?? "picture", width: Number(query.get("w")) || 1, height: Number(query.get("h")) || 1 }), [sha, query]);
  const [unit, setUnit] = useState<Unit>("mm");
  const [stock, setStock] = useState(USUAL_STOCK);
  const [ownWidth, setOwnWidth] = useState<number | null>(null);
  const [cures, setCures] = useState<{ smooth?: number; grow?: number; even?: number }>({});
  const [waiting, setWaiting] = useState<Waiting[]>([]);
  useEffect(() => setWaiting(waitingPictures()), [sha]);
  const [begun, setBegun] = useState<Begun | null>(null);
  const [working, setWorking] = useState(true);
  // What is said is of the picture before the last change.
  const [stale, setStale] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const worker = useRef<Worker | null>(null);
  const seq = useRef(0);

  const fits = Math.max(1, Math.min(stock.width - 2 * stock.margin, ((stock.height - 2 * stock.margin) * asset.width) / asset.height));
  const width = ownWidth ?? Math.round(fits * 100) / 100;
  const jobs = useMemo(
    () =>
      Object.fromEntries(
        OUTCOMES.map((o) => {
          const job = startJob(o.id, asset, o.stock ? unusual(stock) : stock, o.takes?.clear ? { clear: [cutterFromRack("flat3")] } : {});
          job.name = asset.name.replace(/\.[^.]+$/, "").replace(/[-_]+/g, " ");
          if (ownWidth !== null) job.nodes[0].settings.width = ownWidth;
          if (cures.smooth) job.nodes.find((n) => n.kind === "tone")!.settings.smooth = cures.smooth;
          if (cures.even) job.nodes.find((n) => n.kind === "tone")!.settings.even = cures.even;
          if (cures.grow) job.nodes.find((n) => n.kind === "outline")!.settings.grow = cures.grow;
          return [o.id, job];
        }),
      ) as Record<string, JobDocument>,
    [asset, stock, ownWidth, cures],
  );

  useEffect(() => {
    const w = new Worker(new URL("../compute/begin-worker.ts", import.meta.url), { type: "module" });
    worker.current = w;
    w.onmessage = (e: MessageEvent<Begun>) => {
      if (e.data.seq !== seq.current) return;
      setBegun(e.data);
      setStale(false);
      setWorking(!e.data.done);
    };
    return () => w.terminate();
  }, []);
  useEffect(() => {
    setWorking(true);
    setStale(true);
    // Counted at the change: what still comes of the one before is of no use.
    const mine = ++seq.current;
    const timer = setTimeout(() => worker.current?.postMessage({ seq: mine, sha, jobs: OUTCOMES.map((o) => jobs[o.id]), width }), 250);
    return () => clearTimeout(timer);
  }, [jobs, sha, width]);

  const start = async (outcome: string) => {
    try {
      const made = await api<{ id: string }>("/api/jobs", { method: "POST", json: { document: jobs[outcome] } });
      router.push(`/job/${made.id}`);
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  const set = (patch: Partial<typeof stock>) => setStock({ ...stock, ...patch });
  const said = wrong ?? taking.wrong;
  return (
    <div className="min-h-full">
      <DropAnywhere take={(f) => void taking.takeAll(f)} />
      <header className="flex h-[44px] items-center gap-3 border-b border-line bg-raised px-4">
        <HomeLink />
        <span className="flex-1" />
        <Toggle label="Unit" value={unit} options={[{ value: "mm", label: "mm" }, { value: "in", label: "in" }]} onChange={setUnit} />
      </header>
      <main className="mx-auto max-w-[1180px] p-6">
        <h1 className="mb-4 text-[24px]">Begin with {asset.name}</h1>
        {said && <p role="alert" className="mb-4 rounded-md border border-danger/40 bg-danger/5 p-3">{said}</p>}
        <div className="grid grid-cols-[300px_1fr_300px] gap-6">
          <div>
            <div className="grid h-[220px] place-items-center rounded-md bg-sunk p-2">
              {sha && <img src={`/api/assets/${sha}/picture?side=600`} alt={`The picture ${asset.name}`} className="max-h-[204px] max-w-full shadow-card" />}
            </div>
            <div className="mt-2 flex items-center justify-between text-soft">
              <span className="num">{asset.width} × {asset.height} px</span>
              <ChooseFile take={(f) => void taking.takeAll(f)} label="Another picture" accept={PICTURES} />
            </div>
          </div>
          <section aria-label="Fitness">
            {waiting.length > 1 && waiting.some((w) => w.sha === sha) && (
              <nav aria-label="Pictures taken in together" className="mb-3 flex gap-2 overflow-x-auto">
                {waiting.map((w) => (
                  <button key={w.sha} title={w.name} aria-label={`Begin with ${w.name}`} aria-current={w.sha === sha} className="h-12 w-16 shrink-0 overflow-hidden rounded border border-line bg-raised aria-[current=true]:ring-2 aria-[current=true]:ring-spruce" onClick={() => router.push(beginAddress(w))}>
                    <img src={`/api/assets/${w.sha}/picture?side=120`} alt="" className="h-full w-full object-cover" />
                  </button>
                ))}
              </nav>
            )}
            <h2 className="mb-2 text-[17px]">
              Will it work? {begun && stale && <span role="status" className="ml-2 text-[13px] font-normal text-soft">looking again …</span>}
            </h2>
            {!begun && <p className="text-soft">Looking at the picture …</p>}
            {begun?.problem && (
              <p role="alert" className="flex gap-2">
                <TriangleAlert size={18} className="mt-0.5 shrink-0 text-amber" /> {begun.problem}
              </p>
            )}
            {(cures.smooth || cures.grow || cures.even) && (
              <p className="mb-2 flex items-center gap-2 text-spruce">
                {cures.smooth ? `Smoothed over ${cures.smooth} mm. ` : ""}
                {cures.even ? `Light evened out in windows of ${cures.even} mm. ` : ""}
                {cures.grow ? `Lines thickened by ${(2 * cures.grow).toFixed(2)} mm.` : ""}
                <button className="underline" onClick={() => setCures({})}>undo</button>
              </p>
            )}
            <ul className="grid gap-2" aria-busy={stale}>
              {begun?.judgement.map((j) => (
                <li key={j.text} className="flex gap-2">
                  {j.good ? <CircleCheck size={18} className="mt-0.5 shrink-0 text-spruce" aria-label="good" /> : <TriangleAlert size={18} className="mt-0.5 shrink-0 text-amber" aria-label="watch out" />}
                  <span>
                    {j.text}
                    {j.cure && (
                      <button
                        className="ml-1.5 rounded px-1 font-semibold text-spruce underline hover:bg-sunk disabled:text-soft disabled:no-underline"
                        disabled={stale}
                        onClick={() => {
                          const { width: w, smooth, grow, even } = j.cure!;
                          if (w) {
                            setOwnWidth(w);
                            // A wider piece wants a larger board.
                            setStock((s) => ({ ...s, width: Math.max(s.width, w + 2 * s.margin), height: Math.max(s.height, Math.ceil((w * asset.height) / asset.width) + 2 * s.margin) }));
                          }
                          if (smooth) setCures((c) => ({ ...c, smooth }));
                          if (grow) setCures((c) => ({ ...c, grow }));
                          if (even) setCures((c) => ({ ...c, even }));
                        }}
                      >
                        {j.cure.label}
                      </button>
                    )}
                  </span>
                </li>
              ))}
            </ul>
          </section>
          <section aria-label="Size and stock" className="grid content-start gap-2">
            <h2 className="text-[17px]">Size and stock</h2>
            <Row label="Picture's width">
              <LengthField label="Picture's width" value={width} unit={unit} min={1} max={5000} onChange={setOwnWidth} marked={ownWidth !== null} />
            </Row>
            <p className="text-right text-[12.5px] text-soft">
              {formatLength((width * asset.height) / asset.width, unit)} {unit} high{" "}
              {ownWidth !== null && (
                <button className="text-spruce underline" onClick={() => setOwnWidth(null)}>
                  fill the stock
                </button>
              )}
            </p>
            <Row label="Stock width"><LengthField label="Stock width" value={stock.width} unit={unit} min={5} max={10000} onChange={(v) => set({ width: v })} /></Row>
            <Row label="Stock height"><LengthField label="Stock height" value={stock.height} unit={unit} min={5} max={10000} onChange={(v) => set({ height: v })} /></Row>
            <Row label="Thickness"><LengthField label="Stock thickness" value={stock.thickness} unit={unit} min={0.2} max={500} onChange={(v) => set({ thickness: v })} /></Row>
            <Row label="Material"><Pick label="Material" value={stock.material} options={MATERIALS.map((m) => ({ value: m.id, label: m.name }))} onChange={(v) => set({ material: v })} /></Row>
          </section>
        </div>
        <h2 className="mb-3 mt-7 text-[17px]">What shall it become?</h2>
        <div className="grid grid-cols-4 gap-4 max-[1100px]:grid-cols-2">
          {OUTCOMES.map((o) => {
            const made = begun?.outcomes.find((q) => q.id === o.id);
            return (
              <button key={o.id} disabled={!made || !!made.problem} onClick={() => void start(o.id)} className="card flex flex-col justify-start overflow-hidden text-left shadow-card hover:ring-2 hover:ring-spruce disabled:hover:ring-0">
                <span className="relative grid aspect-[3/2] w-full shrink-0 place-items-center bg-mat p-4">
                  {made?.picture ? <OutcomePicture picture={made.picture} label={`${o.title} of this picture`} /> : <span className="px-4 text-center text-[13px] text-[#a9c0b5]">{made?.problem ?? "computing …"}</span>}
                  {working && <span className="catching-up absolute inset-x-0 bottom-0 h-[3px]" />}
                </span>
                <span className="block p-3">
                  <span className="flex items-baseline justify-between gap-2">
                    <span className="font-head text-[16px] font-semibold">{o.title}</span>
                    <span className="num text-soft">{made?.seconds ? formatTime(made.seconds) : ""}</span>
                  </span>
                  <span className="block text-soft">{o.about}</span>
                  {made?.suits && (
                    <span className={`mt-1 flex gap-1.5 text-[13px] ${made.suits.good ? "text-spruce" : "text-amber"}`}>
                      {made.suits.good ? <CircleCheck size={15} className="mt-0.5 shrink-0" /> : <TriangleAlert size={15} className="mt-0.5 shrink-0" />}
                      {made.suits.good ? "Suits it: " : "Think twice: "}
                      {made.suits.why}.
                    </span>
                  )}
                  {made?.worst && <span className="mt-1 flex gap-1.5 text-[13px] text-amber"><TriangleAlert size={15} className="mt-0.5 shrink-0" />{made.worst}</span>}
                </span>
              </button>
            );
          })}
        </div>
      </main>
    </div>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className="flex items-center justify-between gap-2">
      <span>{label}</span>
      {children}
    </div>
  );
}

function OutcomePicture({ picture, label }: { picture: NonNullable<Begun["outcomes"][number]["picture"]>; label: string }) {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    ref.current?.getContext("2d")!.putImageData(new ImageData(picture.data as Uint8ClampedArray<ArrayBuffer>, picture.width, picture.height), 0, 0);
  }, [picture]);
  return <canvas ref={ref} role="img" aria-label={label} width={picture.width} height={picture.height} className="max-h-full max-w-full rounded-[2px] shadow-[4px_6px_14px_rgb(0_0_0/0.5)]" />;
}
