"use client";
import dynamic from "next/dynamic";
import { useContext, useEffect, useRef, useState } from "react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { Tooltip } from "radix-ui";
import { useStore } from "zustand";
import type { JobDocument } from "@oaken/core/job/document";
import { Desk } from "../compute/desk.ts";
import type { Built } from "../compute/messages.ts";
import { api } from "../ui/api.ts";
import { BenchContext, useSpoken } from "./context.tsx";
import { Header } from "./header.tsx";
import { KeptProof } from "./stage/kept-proof.tsx";
import { Makings } from "./makings.tsx";
import { Reach } from "./reach.tsx";
import { RunStrip } from "./run-strip.tsx";
import { Section } from "./section.tsx";
import { Slip } from "./slip.tsx";
import { type Bench, createBench, showing } from "./store.ts";

const Stage = dynamic(() => import("./stage/stage.tsx").then((m) => m.Stage), {
  ssr: false,
  loading: () => <div className="flex-1 bg-mat" />,
});

/** Loaded when programs are first wanted. */
const Write = dynamic(() => import("./write/write.tsx").then((m) => m.Write), {
  ssr: false,
  loading: () => <p className="flex-1 p-6 text-soft">Opening what is written …</p>,
});

interface Opened {
  card: { id: string; revision: number; written: number | null };
  document: JobDocument;
}

export function BenchPage({ id }: { id: string }) {
  const [opened, setOpened] = useState<{ bench: Bench; desk: Desk } | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  useEffect(() => {
    // The workers load while the job does.
    const desk = new Desk();
    let gone = false;
    api<Opened>(`/api/jobs/${id}`).then(
      (o) => {
        if (gone) return;
        setOpened({ bench: createBench(id, o.document, o.card.revision, o.card.written), desk });
      },
      (e: Error) => setWrong(e.message),
    );
    return () => {
      gone = true;
      desk.close();
    };
  }, [id]);
  if (wrong)
    return (
      <main className="grid h-full place-items-center p-8 text-center">
        <div>
          <h1 className="text-[22px]">This job cannot be opened</h1>
          <p role="alert" className="my-3 max-w-lg">
            {wrong}
          </p>
          <Link href="/" className="btn">
            All jobs
          </Link>
        </div>
      </main>
    );
  if (!opened)
    return (
      <main className="flex h-full flex-col">
        <div className="grid h-[44px] shrink-0 place-items-center border-b border-line bg-raised text-soft">
          Opening the job …
        </div>
        <div className="mx-[232px] mb-[100px] flex-1 bg-mat max-[1100px]:mx-[200px]">
          <div className="relative h-full">
            <KeptProof id={id} />
          </div>
        </div>
      </main>
    );
  return (
    <BenchContext value={opened}>
      <Tooltip.Provider>
        <Room />
      </Tooltip.Provider>
    </BenchContext>
  );
}

function Room() {
  const { bench, desk } = useContext(BenchContext)!;
  const { doc, view, failed, save, id } = useStore(bench.store);
  const say = useSpoken();
  useBuilding(bench, desk);
  useKeys(bench);
  return (
    <div className="flex h-full flex-col overflow-hidden">
      <Header />
      {save.state === "stale" && <Stale message={save.message!} id={id} bench={bench} />}
      <Reach />
      {failed && (
        <p
          role="alert"
          className="flex items-center justify-between gap-4 border-b border-danger/40 bg-danger/5 px-4 py-2"
        >
          {say(failed)}
          <button className="btn !h-7" onClick={() => bench.store.setState({ failed: null })}>
            Close
          </button>
        </p>
      )}
      {view === "write" ? (
        <Write />
      ) : (
        <>
          <main className="flex min-h-0 flex-1">
            <h1 className="sr-only">{doc.name}</h1>
            <Makings />
            <Stage />
            <Slip />
          </main>
          <Section />
          <RunStrip />
        </>
      )}
    </div>
  );
}

/** Rebuilds after every change, keeps the card's picture fresh, and takes in what the workers send. */
function useBuilding(bench: Bench, desk: Desk): void {
  const thumb = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    const { store } = bench;
    desk.onBuilt = (built) => {
      const now = store.getState();
      store.setState({
        built: showing(built, now.doc, now.selected),
        live: null,
        liveTone: null,
        working: built.final ? null : now.working,
        failed: built.problem ? built.problem.message : null,
      });
      // The card shows the first board.
      if (!built.final || built.problem || now.doc.board.id !== now.whole.boards[0].id) return;
      clearTimeout(thumb.current);
      thumb.current = setTimeout(() => {
        if (store.getState().built?.surface !== built.surface) return;
        desk
          .thumb(560)
          .then((png) =>
            fetch(`/api/jobs/${now.id}/thumb?seconds=${Math.round(built.seconds)}&stops=${stopsIn(built)}`, {
              method: "PUT",
              body: png as BodyInit,
            }),
          )
          .catch(() => {});
      }, 1200);
    };
    desk.onProgress = (step, share) => store.setState({ working: { step, share } });
    desk.onPreviewed = (live, tone) => store.setState({ live, liveTone: tone });
    desk.onSurface = (scrubbed) => store.getState().playhead !== null && store.setState({ scrubbed });
    desk.onRestarted = (failed) => store.setState({ failed });
    desk.onFailed = (failed) => store.setState({ failed, working: null });
    const build = () => {
      const s = store.getState();
      // What is shown is behind from this moment on, not from the worker's first word.
      store.setState({ working: { step: "job", share: 0 } });
      desk.build(s.doc, { revision: s.revision, written: s.written ?? undefined });
    };
    build();
    const stop = store.subscribe((s, before) => {
      if (s.doc !== before.doc) build();
    });
    const leave = (e: BeforeUnloadEvent) => {
      if (store.getState().save.state !== "saved") {
        void bench.actions.save();
        e.preventDefault();
      }
    };
    window.addEventListener("beforeunload", leave);
    return () => {
      stop();
      clearTimeout(thumb.current);
      window.removeEventListener("beforeunload", leave);
    };
  }, [bench, desk]);
}

/** Findings that stop programs. */
const stopsIn = (built: Built): number => built.findings.filter((f) => f.severity === "stop").length;

function useKeys(bench: Bench): void {
  useEffect(() => {
    const { store, actions } = bench;
    const press = (e: KeyboardEvent) => {
      const typing = e.target instanceof HTMLElement && (e.target.tagName === "INPUT" || e.target.isContentEditable);
      const ctrl = e.ctrlKey || e.metaKey;
      if (ctrl && e.key.toLowerCase() === "z" && !typing) e.shiftKey ? actions.redo() : actions.undo();
      else if (ctrl && e.key.toLowerCase() === "y" && !typing) actions.redo();
      else if (ctrl && e.key.toLowerCase() === "s") void actions.save();
      else if (ctrl || e.altKey || typing) return;
      else if (e.key === " " && !(e.target instanceof HTMLButtonElement)) window.dispatchEvent(new Event("oaken-play"));
      else if (e.key === "f" || e.key === "F") window.dispatchEvent(new Event("oaken-fit"));
      else if (e.key === "t" || e.key === "T") store.setState({ tilt: store.getState().tilt > 0.05 ? 0 : 0.75 });
      else if (e.key === "?") window.dispatchEvent(new Event("oaken-keys"));
      else if (e.key === "u" || e.key === "U") actions.unit(store.getState().unit === "mm" ? "in" : "mm");
      else if (e.key === "w" || e.key === "W")
        store.setState({ view: store.getState().view === "write" ? "bench" : "write" });
      else if (/^[1-4]$/.test(e.key)) {
        const k = (["picture", "outline", "paths", "proof"] as const)[Number(e.key) - 1];
        const { mixer } = store.getState();
        store.setState({ mixer: { ...mixer, [k]: mixer[k] > 0.01 ? 0 : 1 } });
      } else return;
      e.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [bench]);
}

/** Two windows on one job: this one was behind. Nothing is lost; the person chooses. */
function Stale({ message, id, bench }: { message: string; id: string; bench: Bench }) {
  const router = useRouter();
  const [wrong, setWrong] = useState<string | null>(null);
  const asNew = async () => {
    try {
      const { whole } = bench.store.getState();
      const made = await api<{ id: string }>("/api/jobs", {
        method: "POST",
        json: { document: { ...whole, name: `${whole.name}, mine` } },
      });
      bench.store.setState({ save: { state: "saved", at: new Date() } });
      router.push(`/job/${made.id}`);
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  return (
    <div role="alert" className="flex items-center gap-3 border-b border-danger/40 bg-danger/5 px-4 py-2">
      <span className="flex-1">{wrong ?? message}</span>
      <button className="btn" onClick={() => void asNew()}>
        Keep mine as a new job
      </button>
      <button
        className="btn"
        onClick={() => {
          bench.store.setState({ save: { state: "saved", at: null } });
          location.assign(`/job/${id}`);
        }}
      >
        Load the other
      </button>
    </div>
  );
}
