import { proxy } from "comlink";
import { useEffect, useRef, useState } from "react";
import { type BoardJob, type StockSettings, usualStock } from "@oaken/core/job/document";
import { OUTCOMES, outcomeById } from "@oaken/core/job/outcomes";
import type { Shop } from "@oaken/core/shop/shop";
import { type Start, startJob, usualHelpers } from "@oaken/core/job/start";
import type { BeginAsk, BeginWork, Begun, Picked } from "../compute/begin-messages.ts";
import { helperOf, Watched } from "../compute/watched.ts";
import type { Cures } from "./fitness.tsx";

export type Stock = StockSettings;

/** What of the stock a person has said: the rest is the outcome's own. */
function unusual(stock: Stock, shop: Shop): Partial<Stock> {
  const usual = usualStock(shop);
  return Object.fromEntries(
    Object.entries(stock).filter(([k, v]) => JSON.stringify(v) !== JSON.stringify(usual[k as keyof Stock])),
  );
}

/** Time without a change after which the outcomes are computed anew, ms. */
const SETTLES = 250;

/** The job that an outcome would begin with. */
export function jobOf(
  shop: Shop,
  outcome: string,
  asset: NonNullable<Start["asset"]>,
  stock: Stock,
  width: number | null,
  cures: Cures,
): BoardJob {
  const o = outcomeById(outcome);
  const said = o.stock ? unusual(stock, shop) : stock;
  const job = startJob(shop, { outcome: o.id, asset, stock: said, cutters: usualHelpers(o, shop) });
  job.name = asset.name.replace(/\.[^.]+$/, "").replace(/[-_]+/g, " ");
  // Not every outcome has every kind: a surface has no outline.
  const set = (kind: string, settings: object) => {
    const making = job.makings.find((n) => n.kind === kind);
    if (making) Object.assign(making.settings, settings);
  };
  set("picture", { measured: "art" });
  if (width !== null) set("picture", { width });
  if (cures.crop) set("picture", { crop: cures.crop });
  if (cures.smooth) set("tone", { smooth: cures.smooth });
  if (cures.even) set("tone", { even: cures.even });
  if (cures.grow) set("outline", { grow: cures.grow });
  return job;
}

/** Judgement and outcomes as the worker finds them, anew a moment after the jobs change. */
export function useBegun(
  sha: string,
  jobs: Record<string, BoardJob>,
  rack: BeginAsk["rack"],
  setWrong: (wrong: string) => void,
) {
  const [begun, setBegun] = useState<Begun | null>(null);
  const [working, setWorking] = useState(true);
  const [stale, setStale] = useState(false);
  const worker = useRef<{ begin(ask: BeginAsk): void; first(seq: number, picked: Picked): void } | null>(null);
  const asked = useRef<BeginAsk | null>(null);
  const seq = useRef(0);
  useEffect(() => {
    const hear = (said: Begun): void => {
      w.alive();
      if (said.seq !== seq.current) return;
      setBegun(said);
      setStale(false);
      setWorking(!said.done);
    };
    const lost = (again: boolean) => {
      if (again && asked.current) return worker.current?.begin(asked.current);
      setWorking(false);
      setWrong("The computation ended several times over this picture. Load the page anew, or use a smaller picture.");
    };
    const startWorker = () =>
      helperOf<BeginWork>(new Worker(new URL("../compute/begin-worker.ts", import.meta.url), { type: "module" }));
    const w = new Watched<BeginWork>(startWorker, lost);
    w.ready();
    // Where the worker ends, that is seen to already.
    worker.current = {
      begin: (ask) => void w.call((work) => work.begin(ask, proxy(hear))).catch(() => {}),
      first: (number, picked) => void w.call((work) => work.first(number, picked), false).catch(() => {}),
    };
    return () => w.close();
  }, [setWrong]);
  useEffect(() => {
    setWorking(true);
    setStale(true);
    // Counted at the change: what still comes of the one before is of no use.
    asked.current = { seq: ++seq.current, sha, rack, jobs: OUTCOMES.map((o) => jobs[o.id]), first: null };
    const timer = setTimeout(() => worker.current?.begin(asked.current!), SETTLES);
    return () => clearTimeout(timer);
  }, [jobs, sha, rack]);
  /** Has the worker see to what somebody waits for before the rest. */
  const first = (picked: Picked) => {
    if (asked.current) asked.current.first = picked;
    worker.current?.first(seq.current, picked);
  };
  return { begun, working, stale, first };
}
