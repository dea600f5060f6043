import { shallow } from "zustand/shallow";
import { aboutOf } from "@oaken/core/job/graph";
import type { BoardJob } from "@oaken/core/job/document";
import { makingKind } from "@oaken/core/makings/register";
import type { Gives } from "@oaken/core/makings/product";
import { positionAt } from "../playback.ts";
import { type Bench, type BenchState, type Colouring, SHOWN } from "../store.ts";
import { MOST_TILT } from "./tilt.ts";
import type { StageScene } from "./scene.ts";

/** What the selection gives; null for cuts and the stock. */
export function givenBy({ doc, selected }: Pick<BenchState, "doc" | "selected">): Gives | null {
  const making = doc.makings.find((m) => m.id === selected);
  return making ? makingKind(making.kind).gives : null;
}

/** The colouring that the piece can take: only a sheet of known light law glows. */
export const shownAs = ({ colouring, built }: Pick<BenchState, "colouring" | "built">): Colouring =>
  colouring === "glow" && !built?.litho ? "material" : colouring;

/** The stage shows from here where it flies to: this share of the stock's width and at least so many mm. */
const FLOWN = { share: 1 / 3, least: 60, distance: 1.2 };

/**
 * Lets the scene follow the bench's state, each layer only what it shows; nothing of it passes through React, so that
 * a playing cutter or a moving light leaves the panels alone.
 * @returns ends it
 */
export function follow(scene: StageScene, store: Bench["store"]): () => void {
  const ends: (() => void)[] = [];
  /** Tells `tell` what `read` gives, now and whenever a part of it is another. */
  const on = <T extends readonly unknown[]>(read: (s: BenchState) => readonly [...T], tell: (...now: T) => void) =>
    ends.push(store.subscribe(read, (now) => tell(...now), { equalityFn: shallow, fireImmediately: true }));

  const state = store.getState();
  scene.eye.view.tilt = state.tilt * MOST_TILT;
  on(
    (s) => [s.doc.stock],
    (stock) => scene.setStock(stock),
  );
  on(
    ({ doc: { stock }, tilt, fits }) => [tilt, fits, `${stock.width}×${stock.height}×${stock.thickness}`],
    (tilt, _fits, _size) => {
      scene.eye.view.tilt = tilt * MOST_TILT;
      scene.fit();
    },
  );
  on(
    (s) => {
      const wanted = givenBy(s) === "heights" ? s.built?.shown.heights?.surface : undefined;
      return [s.scrubbed ?? wanted ?? s.built?.surface];
    },
    (surface) => surface && scene.setSurface(surface),
  );
  on(
    (s) => [!s.built?.final || s.working !== null],
    (busy) => scene.setBusy(busy),
  );
  on(
    (s) => [
      givenBy(s) === "grey" ? (s.liveTone ?? s.built?.shown.grey?.tone ?? null) : null,
      s.built?.shown.raster ?? null,
      pictureOf(s.doc, s.selected),
    ],
    (tone, raster, url) => {
      if (tone) scene.setTone(tone, raster?.place ?? null);
      else if (raster?.framed) scene.setPixels(raster.framed, raster.place);
      else scene.setPicture(url, raster?.place ?? null);
    },
  );
  on(
    (s) => [s.live ?? s.built?.shown.shapes?.outline.rings ?? null],
    (rings) => scene.setOutline(rings),
  );
  on(
    (s) => [s.mixer.paths > SHOWN ? s.built : null, s.doc.cuts.some((c) => c.id === s.selected) ? s.selected : null],
    (built, only) => built && scene.setPaths(built.cuts, only),
  );
  on(
    (s) => [s.mixer, shownAs(s)],
    (mixer, colouring) => scene.setMixer(mixer, colouring),
  );
  on(
    (s) => [s.built?.litho ?? null, s.glow],
    (litho, glow) => litho && scene.setGlow(litho, glow),
  );
  on(
    (s) => [s.light],
    (light) => scene.setLight(light),
  );
  on(
    (s) => [s.wipe ?? 0],
    (wipe) => scene.setWipe(wipe),
  );
  on(
    (s) => [givenBy(s) === "shapes" ? (s.built?.shown.shapes?.outline ?? null) : null],
    (outline) => {
      scene.setOutlineMarks(outline);
      scene.setMarks(outline?.droppedAt ?? []);
    },
  );
  on(
    (s) => [s.target],
    (target) => {
      if (!target) return;
      const least = Math.max(FLOWN.least, store.getState().doc.stock.width * FLOWN.share);
      const distance = Math.min(scene.eye.view.distance, FLOWN.distance * least);
      Object.assign(scene.eye.view, { x: target.x, y: target.y, distance });
      scene.setMarks([target.x, target.y]);
    },
  );
  on(
    (s) => [s.playhead, s.built, s.doc.cuts],
    (playhead, built, cuts) => {
      const at = playhead !== null && built ? positionAt(built.cuts, playhead) : null;
      const cut = at && cuts.find((c) => c.id === built!.cuts[at.cut].id);
      scene.setCutter(cut?.cutter ?? null, at?.x, at?.y, at?.z);
    },
  );
  return () => ends.forEach((end) => end());
}

/** Where the picture is read that a part is about; null where it is about none. */
function pictureOf(doc: BoardJob, selected: string): string | null {
  const sha = aboutOf(doc, selected, "raster")?.asset?.sha;
  return sha ? `/api/assets/${sha}/picture` : null;
}
