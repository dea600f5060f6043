import { Crop, Eraser, Frame, RotateCw, Ruler } from "lucide-react";
import type { Setting } from "@oaken/core/settings/fields";
import { type FrameSettings, NO_FRAME } from "@oaken/core/picture/frame";
import { turnedFrame } from "@oaken/core/picture/reframe";
import type { Built } from "../../compute/messages.ts";
import { pickColour } from "./pick-colour.ts";
import { appended, type Space, textOf } from "./space.ts";

/** What a tool needs to know when a hand has finished a gesture. */
export interface Gesture {
  /** points in pixels of the framed picture, x y by turns, in the order they were made */
  pixels: number[];
  space: Space;
  /** the part's own settings */
  own: Record<string, Setting>;
  /** the picture as it is in its file, px */
  file: { sha: string; width: number; height: number };
  built: Built;
  /** where a crop has moved the picture's origin, px */
  offset: [number, number];
  mode: string;
  /** brush radius, px */
  brush: number;
  /** proportion a crop keeps, width over height; 0 for any */
  proportion: number;
}

/** A tool of the stage: how it is used and what it leaves in the settings. */
export interface Tool {
  id: string;
  title: string;
  /** what to do, in one line */
  how: string;
  /** drag: two points · stroke: a freehand line · click: one point · corners: four handles */
  gesture: "drag" | "stroke" | "click" | "corners";
  modes?: readonly { value: string; label: string; gesture?: Tool["gesture"] }[];
  /** among the picture's own tools, with this picture of it */
  Icon?: typeof Crop;
  /** what a drag is drawn as; a box when not given */
  drawn?: "line";
  /** once its settings are set it is put away */
  isOnce?: boolean;
  /** settings that it begins without */
  clears?: readonly string[];
  /** a drag gives a length that is to be typed as it really is: the picture is sized by it */
  measures?: boolean;
  /** settings after the gesture, null to leave all as it is */
  apply(g: Gesture): Changed | null | Promise<Changed | null>;
}

type Changed = Record<string, Setting | undefined>;

const shifted = (g: Gesture): number[] => g.pixels.map((v, i) => v + g.offset[i % 2]);

/** Pixels a drag must cover to be meant. */
const LEAST_DRAG = 8;

export const TOOLS: readonly Tool[] = [
  {
    id: "crop",
    title: "Crop",
    how: "Drag over the part to keep.",
    gesture: "drag",
    Icon: Crop,
    isOnce: true,
    modes: [
      { value: "free", label: "free" },
      { value: "proportion", label: "stock's shape" },
    ],
    apply(g) {
      let [x0, y0, x1, y1] = shifted(g);
      if (Math.abs(x1 - x0) < LEAST_DRAG || Math.abs(y1 - y0) < LEAST_DRAG) return null;
      if (g.mode === "proportion" && g.proportion > 0)
        y1 = y0 + (Math.sign(y1 - y0) * Math.abs(x1 - x0)) / g.proportion;
      return {
        crop: [Math.min(x0, x1), Math.min(y0, y1), Math.abs(x1 - x0), Math.abs(y1 - y0)]
          .map((v) => Math.round(v))
          .join(","),
      };
    },
  },
  {
    id: "erase",
    title: "Erase",
    how: "The ground around fills what is wiped off.",
    gesture: "click",
    Icon: Eraser,
    modes: [
      { value: "spot", label: "one mark", gesture: "click" },
      { value: "brush", label: "brush", gesture: "stroke" },
      { value: "lasso", label: "lasso", gesture: "stroke" },
      { value: "rect", label: "rectangle", gesture: "drag" },
    ],
    apply(g) {
      const p = shifted(g);
      const add = (item: string) => ({ erase: appended((g.own.erase as string) ?? "", item) });
      if (g.mode === "spot") return add(`spot ${textOf(p.slice(0, 2))}`);
      if (g.mode === "brush") return add(`brush ${textOf([g.brush, ...p])}`);
      if (g.mode === "lasso") return p.length < 6 ? null : add(`lasso ${textOf(p)}`);
      return add(
        `rect ${textOf([Math.min(p[0], p[2]), Math.min(p[1], p[3]), Math.abs(p[2] - p[0]), Math.abs(p[3] - p[1])])}`,
      );
    },
  },
  {
    id: "straighten",
    title: "Straighten",
    how: "Draw along a line that should be level or upright.",
    gesture: "drag",
    Icon: RotateCw,
    drawn: "line",
    isOnce: true,
    apply(g) {
      const [x0, y0, x1, y1] = g.pixels;
      if (Math.hypot(x1 - x0, y1 - y0) < LEAST_DRAG) return null;
      // Pixels run down: a line that falls to the right needs turning counter-clockwise.
      let a = (Math.atan2(y1 - y0, x1 - x0) * 180) / Math.PI;
      a -= 90 * Math.round(a / 90);
      const own = { ...NO_FRAME, ...(g.own as Partial<FrameSettings>) };
      const { turn, erase, crop } = turnedFrame(
        g.file.width,
        g.file.height,
        own,
        Math.round((own.turn + a) * 100) / 100,
      );
      return { turn, erase: erase || undefined, crop: crop || undefined };
    },
  },
  {
    id: "corners",
    title: "Square up",
    how: "Drag the four handles to the drawing's corners, then apply.",
    gesture: "corners",
    Icon: Frame,
    isOnce: true,
    clears: ["corners", "turn", "crop", "erase"],
    apply: (g) => ({ corners: textOf(g.pixels), turn: undefined, crop: undefined, erase: undefined }),
  },
  {
    id: "measure",
    title: "Measure",
    how: "Draw between two places whose distance you know.",
    gesture: "drag",
    Icon: Ruler,
    drawn: "line",
    measures: true,
    apply: () => null,
  },
  {
    id: "colours",
    title: "Colours",
    how: "Click a colour to keep it or leave it out.",
    gesture: "click",
    async apply({ built, file, pixels }) {
      const hex = await pickColour(built, file.sha, pixels[0], pixels[1]);
      const colours = built.shown.shapes?.colours;
      if (hex === null || !colours) return null;
      const kept = colours.filter((c) => c.kept !== (c.hex === hex)).map((c) => c.hex);
      return { keep: kept.join(",") };
    },
  },
  {
    id: "hide",
    title: "Hide pieces",
    how: "Click a piece to leave it out.",
    gesture: "click",
    apply: (g) => ({ hide: appended((g.own.hide as string) ?? "", textOf(g.pixels.slice(0, 2))) }),
  },
  {
    id: "bridge",
    title: "Bridges",
    how: "Click an edge where a bridge should be.",
    gesture: "click",
    apply: (g) => ({ bridgesAt: appended((g.own.bridgesAt as string) ?? "", textOf(g.pixels.slice(0, 2))) }),
  },
];

export const toolById = (id: string): Tool | undefined => TOOLS.find((t) => t.id === id);
