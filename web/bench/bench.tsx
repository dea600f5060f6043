"use client";
import dynamic from "next/dynamic";
import { useContext, useEffect, useRef, useState } from "react";
import Link from "next/link";
import { Tooltip } from "radix-ui";
import type { JobDocument } from "@oaken/core/job/document";
import { Desk } from "../compute/desk.ts";
import { api } from "../ui/api.ts";
import { type Served, takeServed } from "../ui/served.ts";
import { BenchContext, useBench, useBenchStore, useSpoken } from "./context.tsx";
import { Header } from "./header.tsx";
import { KeptProof } from "./stage/kept-proof.tsx";
import { Makings } from "./makings.tsx";
import { Reach } from "./reach.tsx";
import { RunStrip } from "./run-strip.tsx";
import { Slip } from "./slip.tsx";
import { useBuilding } from "./building.ts";
import { useKeys } from "./commands.ts";
import { Stale } from "./stale.tsx";
import { type Bench, createBench } from "./store.ts";

const Stage = dynamic(() => import("./stage/stage.tsx").then((m) => m.Stage), {
  ssr: false,
  loading: () => <div className="flex-1 bg-mat" />,
});

/** Loaded when programs are first wanted. */
const Write = dynamic(() => import("./write/write.tsx").then((m) => m.Write), {
  ssr: false,
  loading: () => <p className="flex-1 p-6 text-soft">Opening what is written …</p>,
});

/** Loaded when a line is first drawn across the piece. */
const Section = dynamic(() => import("./section.tsx").then((m) => m.Section), { ssr: false });

interface Opened {
  card: { id: string; revision: number; written: number | null };
  document: JobDocument;
}

export function BenchPage({ id, first }: { id: string; first: Served<Opened> | null }) {
  const [opened, setOpened] = useState<{ bench: Bench; desk: Desk } | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const sentFirst = useRef(first);
  useEffect(() => {
    // The workers load while the job does.
    const desk = new Desk(id);
    let gone = false;
    const open = (o: Opened) => {
      if (!gone) setOpened({ bench: createBench(id, o.document, o.card.revision, o.card.written), desk });
    };
    const sent = takeServed(sentFirst.current);
    if (sent) open(sent);
    else api<Opened>(`/api/jobs/${id}`).then(open, (e: Error) => setWrong(e.message));
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
  const view = useBench((s) => s.view);
  const hasSection = useBench((s) => s.section !== null);
  useBuilding(bench, desk);
  useKeys(bench);
  return (
    <div className="flex h-full flex-col overflow-hidden">
      <Header />
      <Stale />
      <Reach />
      <Failed />
      {view === "write" ? (
        <Write />
      ) : (
        <>
          <main className="flex min-h-0 flex-1">
            <Name />
            <Makings />
            <Stage />
            <Slip />
          </main>
          {hasSection && <Section />}
          <RunStrip />
        </>
      )}
    </div>
  );
}

function Name() {
  return <h1 className="sr-only">{useBench((s) => s.doc.name)}</h1>;
}

/** What went wrong last, until it is closed or the next build is there. */
function Failed() {
  const store = useBenchStore();
  const failed = useBench((s) => s.failed);
  const say = useSpoken();
  if (!failed) return null;
  return (
    <p role="alert" className="flex items-center justify-between gap-4 border-b border-danger/40 bg-danger/5 px-4 py-2">
      {say(failed)}
      <button className="btn !h-7" onClick={() => store.setState({ failed: null })}>
        Close
      </button>
    </p>
  );
}
