import type { JobMaking } from "./document.ts";

/** The makings that a job begins with, from its file; the last is what is cut. */
export type Makings = (asset: NonNullable<JobMaking["asset"]>) => JobMaking[];

/** The makings every drawing gets: its shapes, exactly. */
export const drawingMakings = (asset: NonNullable<JobMaking["asset"]>): JobMaking[] => [
  { id: "drawing", kind: "import", name: asset.name, reads: {}, settings: {}, asset },
];

/** The makings every solid gets: its surface, as it stands. */
export const solidMakings = (asset: NonNullable<JobMaking["asset"]>): JobMaking[] => [
  { id: "solid", kind: "solid", name: asset.name, reads: {}, settings: {}, asset },
];

/** The makings every picture gets: picture, tone, outline. */
const fromTone =
  (kind: string, name: string): Makings =>
  (asset): JobMaking[] => [
    { id: "picture", kind: "picture", name: asset.name, reads: {}, settings: {}, asset },
    { id: "tone", kind: "tone", name: "Tone", reads: { from: "picture" }, settings: {} },
    { id: kind, kind, name, reads: { from: "tone" }, settings: {} },
  ];
export const pictureMakings = fromTone("outline", "Outline");
export const toneMakings: Makings = (asset) => pictureMakings(asset).slice(0, 2);
export const heightMakings = fromTone("height", "Height");
export const lithoMakings = fromTone("litho", "Lithophane");
/** An outline, and the body that it is given. */
export const bodyMakings: Makings = (asset) => [
  ...pictureMakings(asset),
  { id: "raise", kind: "raise", name: "Raised body", reads: { from: "outline" }, settings: {} },
];
