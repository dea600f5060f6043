"use client";
import { useEffect, useRef } from "react";
import type { Desk } from "../compute/desk.ts";
import type { Built } from "../compute/messages.ts";
import { type Bench, type BenchState, showing } from "./store.ts";
import { cardPng } from "./views/lit.ts";

/** Moments that a browser's own tools and `./oaken bench page` measure between. */
const MARKS = { live: "oaken-live", first: "oaken-first-proof", settled: "oaken-settled-proof" };

/** Longest side of a card's picture, px, and how long nothing must have changed before it is made, ms. */
const CARD_SIDE = 560;
const CARD_REST = 1200;

/** Rebuilds after every change, keeps the card's picture fresh, and takes in what the workers send. */
export function useBuilding(bench: Bench, desk: Desk): void {
  const thumb = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    const { store } = bench;
    desk.onBuilt = (built) => {
      const now = store.getState();
      performance.mark(built.final ? MARKS.settled : MARKS.first);
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
        pictureFor(now, built, desk)
          .then((png) =>
            fetch(`/api/jobs/${now.id}/thumb?seconds=${Math.round(built.seconds)}&stops=${stopsIn(built)}`, {
              method: "PUT",
              body: png as BodyInit,
            }),
          )
          .catch(() => {});
      }, CARD_REST);
    };
    desk.onProgress = (step, share) => store.setState({ working: { step, share } });
    desk.onPreviewed = (live, tone) => {
      performance.mark(MARKS.live);
      store.setState({ live, liveTone: tone });
    };
    desk.onSurface = (scrubbed) => store.getState().playhead !== null && store.setState({ scrubbed });
    desk.onRestarted = (failed) => store.setState({ failed });
    desk.onFailed = (failed) => store.setState({ failed, working: null });
    const build = () => {
      const s = store.getState();
      // The card's picture would be of what is no longer, and the build would have to wait for it.
      clearTimeout(thumb.current);
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

/** The picture of a job's card: of its proof, or of the height that it keeps for others. */
function pictureFor({ whole, doc }: BenchState, built: Built, desk: Desk): Promise<Uint8Array | Blob> {
  const height = whole.kept && built.makings[doc.makings[doc.makings.length - 1].id];
  return height && height.is === "heights" ? cardPng(height.surface) : desk.thumb(CARD_SIDE);
}

/** Findings that stop programs. */
const stopsIn = (built: Built): number => built.findings.filter((f) => f.severity === "stop").length;
