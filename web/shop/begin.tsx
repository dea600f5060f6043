"use client";
import { useEffect, useEffectEvent, useMemo, useState } from "react";
import { useRouter } from "next/navigation";
import { documentOf } from "@oaken/core/job/boards";
import { aboutOf } from "@oaken/core/job/graph";
import { usualStock } from "@oaken/core/job/document";
import { OUTCOMES } from "@oaken/core/job/outcomes";
import type { Asset } from "@oaken/core/makings/kind";
import type { Cure } from "@oaken/core/picture/fitness";
import { materialIn } from "@oaken/core/shop/shop";
import { fieldLength, spoken } from "@oaken/core/speech";
import type { Begun, BegunOutcome, BegunPlan, Picked } from "../compute/begin-messages.ts";
import { api } from "../ui/api.ts";
import { LengthField } from "../ui/length-field.tsx";
import { HomeLink } from "../ui/mark.tsx";
import { choices, Pick } from "../ui/pick.tsx";
import { useShop } from "../ui/shop.tsx";
import { UnitToggle } from "../ui/unit-toggle.tsx";
import { useUnit } from "../ui/use-unit.ts";
import { beginAddress, ChooseFile, DropAnywhere, PICTURES, useTaking, type Waiting, waitingPictures } from "./drop.tsx";
import { type Cures, Fitness } from "./fitness.tsx";
import { jobOf, type Stock, useBegun } from "./begun.ts";
import { Outcomes } from "./outcome-cards.tsx";

/** A dropped picture: what it is good for, at which size, and what it would become. */
export function BeginPage({ asset }: { asset: Asset }) {
  const shop = useShop();
  const router = useRouter();
  const taking = useTaking();
  const { sha } = asset;
  const [unit, setUnit] = useUnit();
  const say = (text: string) => spoken(text, unit);
  const [stock, setStock] = useState<Stock>(() => usualStock(shop));
  const [ownWidth, setOwnWidth] = useState<number | null>(null);
  const [cures, setCures] = useState<Cures>({});
  const [waiting, setWaiting] = useState<Waiting[]>([]);
  useEffect(() => setWaiting(waitingPictures()), [sha]);
  const [wrong, setWrong] = useState<string | null>(null);
  const jobs = useMemo(
    () => Object.fromEntries(OUTCOMES.map((o) => [o.id, jobOf(shop, o.id, asset, stock, ownWidth, cures)])),
    [shop, asset, stock, ownWidth, cures],
  );
  const { begun, working, stale, first } = useBegun(sha, jobs, shop.cutters, setWrong);
  const [picked, setPicked] = useState<Picked | null>(null);
  useEffect(() => setPicked(null), [jobs]);
  // Until the art is found, the picture's own proportion has to do.
  const shape = begun?.size ?? asset;
  const fits = Math.min(
    stock.width - 2 * stock.margin,
    ((stock.height - 2 * stock.margin) * shape.width) / shape.height,
  );
  const width = ownWidth ?? Math.round(Math.max(1, fits) * 100) / 100;

  const start = async (shown: BegunOutcome, plan?: BegunPlan) => {
    try {
      const job = structuredClone(jobs[shown.id]);
      job.cuts = plan?.cuts ?? shown.cuts;
      if (shown.prepared) Object.assign(aboutOf(job, "", "grey")!.settings, shown.prepared);
      const document = documentOf(job);
      const made = await api<{ id: string }>("/api/jobs", { method: "POST", json: { document } });
      // The picture is of the way that is taken by itself.
      if (!plan || plan.isTaken) await keepPicture(made.id, shown);
      router.push(`/job/${made.id}`);
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  // What was picked before its cutters were chosen begins with the chosen ones: they come next.
  const awaited = picked && !stale ? shownAs(begun, picked) : null;
  const isReady = awaited !== null && (awaited.isChosen || !working);
  const open = useEffectEvent(() => {
    setPicked(null);
    if (!awaited?.problem) void start(awaited!);
  });
  useEffect(() => {
    if (isReady) open();
  }, [isReady]);
  const pick = (shown: BegunOutcome, plan?: BegunPlan) => {
    if (!stale && shown.isChosen) return void start(shown, plan);
    const one = { id: shown.id, isPrepared: shown.prepared !== null };
    setPicked(one);
    first(one);
  };
  const takeCure = ({ width: wide, smooth, grow, even, crop }: Cure) => {
    if (wide) {
      setOwnWidth(wide);
      // A wider piece wants a larger board.
      const room = 2 * stock.margin;
      const high = Math.ceil((wide * shape.height) / shape.width);
      setStock({ ...stock, width: Math.max(stock.width, wide + room), height: Math.max(stock.height, high + room) });
    }
    const taken = { ...(smooth && { smooth }), ...(grow && { grow }), ...(even && { even }), ...(crop && { crop }) };
    setCures((c) => ({ ...c, ...taken }));
  };
  const said = wrong ?? taking.wrong;
  return (
    <div className="min-h-full">
      <DropAnywhere take={(f) => void taking.takeAll(f)} />
      <header className="flex h-[44px] items-center gap-3 border-b border-line bg-raised px-4">
        <HomeLink />
        <span className="flex-1" />
        <UnitToggle unit={unit} onChange={setUnit} />
      </header>
      <main className="mx-auto max-w-[1180px] p-6">
        <h1 className="mb-4 text-[24px]">Begin with {asset.name}</h1>
        {said && (
          <p role="alert" className="mb-4 rounded-md border border-danger/40 bg-danger/5 p-3">
            {said}
          </p>
        )}
        <div className="grid grid-cols-[300px_1fr_300px] gap-6">
          <div>
            <div className="grid h-[220px] place-items-center rounded-md bg-sunk p-2">
              <img
                src={`/api/assets/${sha}/picture?side=600`}
                alt={`The picture ${asset.name}`}
                className="max-h-[204px] max-w-full shadow-card"
              />
            </div>
            <div className="mt-2 flex items-center justify-between text-soft">
              <span className="num">
                {asset.width} × {asset.height} px
              </span>
              <ChooseFile take={(f) => void taking.takeAll(f)} label="Another picture" accept={PICTURES} />
            </div>
          </div>
          <section aria-label="Fitness">
            {waiting.length > 1 && waiting.some((w) => w.sha === sha) && <Others waiting={waiting} sha={sha} />}
            <Fitness begun={begun} stale={stale} cures={cures} say={say} take={takeCure} undo={() => setCures({})} />
          </section>
          <section aria-label="Size and stock" className="grid content-start gap-2">
            <h2 className="text-[17px]">Size and stock</h2>
            <Row label="Width of the art">
              <LengthField
                label="Width of the art"
                value={width}
                unit={unit}
                min={1}
                max={5000}
                onChange={setOwnWidth}
                marked={ownWidth !== null}
              />
            </Row>
            <p className="text-right text-[12.5px] text-soft">
              {fieldLength(Math.round((100 * width * shape.height) / shape.width) / 100, unit)} {unit} high{" "}
              {ownWidth !== null && (
                <button className="text-spruce underline" onClick={() => setOwnWidth(null)}>
                  fill the stock
                </button>
              )}
            </p>
            <StockRows stock={stock} unit={unit} set={(patch) => setStock({ ...stock, ...patch })} />
          </section>
        </div>
        <Outcomes begun={begun} working={working} picked={picked} say={say} pick={pick} />
      </main>
    </div>
  );
}

/** What was picked, as it is known now; plain where nothing is prepared any more. */
function shownAs(begun: Begun | null, { id, isPrepared }: Picked): BegunOutcome | null {
  const ways = begun?.outcomes.filter((o) => o.id === id) ?? [];
  const same = ways.find((o) => (o.prepared !== null) === isPrepared);
  return same ?? (begun?.done ? ways[0] : null) ?? null;
}

/** The card's small proof as the new job's picture, until its own is there; without it the bench shows the stock. */
async function keepPicture(id: string, made: BegunOutcome | undefined): Promise<void> {
  if (!made?.picture) return;
  const { width, height, data } = made.picture;
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext("2d")!.putImageData(new ImageData(data as Uint8ClampedArray<ArrayBuffer>, width, height), 0, 0);
  const png = await canvas.convertToBlob({ type: "image/png" });
  await fetch(`/api/jobs/${id}/thumb?seconds=${Math.round(made.seconds)}`, { method: "PUT", body: png }).catch(
    () => {},
  );
}

function StockRows({ stock, unit, set }: { stock: Stock; unit: "mm" | "in"; set(patch: Partial<Stock>): void }) {
  const shop = useShop();
  const length = (name: string, key: "width" | "height" | "thickness", min: number, max: number) => (
    <Row label={name}>
      <LengthField
        label={key === "thickness" ? "Stock thickness" : name}
        value={stock[key]}
        unit={unit}
        min={min}
        max={max}
        onChange={(v) => set({ [key]: v })}
      />
    </Row>
  );
  return (
    <>
      {length("Stock width", "width", 5, 10000)}
      {length("Stock height", "height", 5, 10000)}
      {length("Thickness", "thickness", 0.2, 500)}
      <Row label="Material">
        <Pick
          label="Material"
          value={stock.material.id}
          options={choices(shop.materials)}
          onChange={(id) => set({ material: materialIn(shop, id) })}
        />
      </Row>
    </>
  );
}

function Others({ waiting, sha }: { waiting: readonly Waiting[]; sha: string }) {
  const router = useRouter();
  return (
    <nav aria-label="Pictures taken in together" className="mb-3 flex gap-2 overflow-x-auto">
      {waiting.map((w) => (
        <button
          key={w.sha}
          title={w.name}
          aria-label={`Begin with ${w.name}`}
          aria-current={w.sha === sha}
          className={
            "h-12 w-16 shrink-0 overflow-hidden rounded border border-line bg-raised aria-[current=true]:ring-2 " +
            "aria-[current=true]:ring-spruce"
          }
          onClick={() => router.push(beginAddress(w))}
        >
          <img src={`/api/assets/${w.sha}/picture?side=120`} alt="" className="h-full w-full object-cover" />
        </button>
      ))}
    </nav>
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
