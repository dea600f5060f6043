import { type EdgePoints, edgeFault, heightAt, type Piece, piecesOf, radiusAt } from "./form.ts";
import { Problem } from "../problem.ts";

/**
 * A cutter as its numbers. Lengths in mm, angles in degrees as the trade writes them. flat · ball: diameter · v:
 * included angle, diameter, width of its flat tip · taper: tip radius, half angle, diameter · drill: diameter and
 * point angle · form: points of its edge · torch: its kerf as diameter.
 */
export interface Cutter {
  kind: "flat" | "ball" | "v" | "taper" | "drill" | "form" | "torch";
  /** of a torch: the width of its kerf */
  diameter: number;
  /** included angle of a V or of a drill's point, degrees */
  angle?: number;
  /** width of the flat at a V's tip, mm */
  tip?: number;
  tipRadius?: number;
  /** from the axis to the flank of a tapered ball, degrees */
  halfAngle?: number;
  /** of a form cutter: radius and height of points along half of its edge, from its tip to its rim, mm */
  edge?: EdgePoints;
  flutes: number;
  /** how deep the flutes cut, mm */
  fluteLength: number;
  /** cuts at its centre, so it may plunge */
  centreCutting: boolean;
  /** how far it stands out below its shank or holder at its own diameter, mm; as far as it cuts when not given */
  reach?: number;
  /** diameter of its shank, mm */
  shank?: number;
  /** which way its flutes push the chip */
  spiral?: "up" | "down" | "compression" | "straight";
  /** how many the workshop has; where it has none, it is known but never chosen by itself. One when not given. */
  owned?: number;
  /** what the workshop wants to remember of it: coating, wear */
  note?: string;
  name?: string;
  id?: string;
}

/**
 * The surface of revolution that cuts: h(r) is its height above the tip at radius r, r(h) the inverse (the radius that
 * a cutter h deep opens at the stock's top). Definitions in docs/geometry.md.
 */
export interface Profile {
  /** greatest radius, mm */
  radius: number;
  /** tip radius that cuts flat (0 for points and balls), mm */
  flat: number;
  /** height at which the cutting edge ends, mm */
  height: number;
  /** radius → height above the tip; Infinity beyond the cutter */
  h(r: number): number;
  /** height above the tip → radius */
  r(h: number): number;
  /** slope dh/dr of the cone part (0 when there is none), for sweeping a cone exactly */
  coneSlope: number;
  /** radius at which the cone begins; below it a ball of radius `ball` or the flat */
  coneFrom: number;
  /** radius of the round tip, 0 when flat */
  ball: number;
  /** the straight pieces of an edge that was given by points */
  pieces?: readonly Piece[];
  /** cuts through whatever lies below while it is on, whatever its height */
  beam?: true;
}

/** Whether all of its underside is level: a flat cutter or a torch. */
export const isFlat = (p: Profile): boolean => p.flat === p.radius;

/** Whether it is a cone, perhaps with a flat tip, and nothing else. */
export const isCone = (p: Profile): boolean => p.ball === 0 && p.coneSlope > 0;

const rad = (deg: number): number => (deg * Math.PI) / 180;

/**
 * @throws Problem `bad-cutter` with what is wrong with its numbers
 */
export function profileOf(c: Cutter): Profile {
  checkCutter(c);
  const R = c.diameter / 2;
  if (c.kind === "flat")
    return {
      radius: R,
      flat: R,
      height: c.fluteLength,
      h: (r) => (r <= R ? 0 : Infinity),
      r: () => R,
      coneSlope: 0,
      coneFrom: R,
      ball: 0,
    };
  if (c.kind === "ball")
    return {
      radius: R,
      flat: 0,
      height: c.fluteLength,
      h: (r) => (r <= R ? R - Math.sqrt(R * R - r * r) : Infinity),
      r: (h) => (h >= R ? R : Math.sqrt(Math.max(0, h * (2 * R - h)))),
      coneSlope: 0,
      coneFrom: R,
      ball: R,
    };
  if (c.kind === "torch")
    return {
      radius: R,
      flat: R,
      height: Infinity,
      h: (r) => (r <= R ? 0 : Infinity),
      r: () => R,
      coneSlope: 0,
      coneFrom: R,
      ball: 0,
      beam: true,
    };
  if (c.kind === "form") {
    const pieces = piecesOf(c.edge!);
    return {
      radius: R,
      flat: pieces[0].slope === 0 ? pieces[0].r1 : 0,
      height: pieces[pieces.length - 1].h1,
      h: (r) => (r > R ? Infinity : heightAt(pieces, r)),
      r: (h) => Math.min(R, radiusAt(pieces, h)),
      coneSlope: 0,
      coneFrom: R,
      ball: 0,
      pieces,
    };
  }
  if (c.kind === "drill") {
    const slope = 1 / Math.tan(rad(c.angle!) / 2);
    return {
      radius: R,
      flat: 0,
      height: c.fluteLength,
      h: (r) => (r > R ? Infinity : r * slope),
      r: (h) => Math.min(R, Math.max(0, h) / slope),
      coneSlope: slope,
      coneFrom: 0,
      ball: 0,
    };
  }
  if (c.kind === "v") {
    const t = (c.tip ?? 0) / 2;
    const slope = 1 / Math.tan(rad(c.angle!) / 2);
    return {
      radius: R,
      flat: t,
      height: (R - t) * slope,
      h: (r) => (r > R ? Infinity : Math.max(0, r - t) * slope),
      r: (h) => Math.min(R, t + Math.max(0, h) / slope),
      coneSlope: slope,
      coneFrom: t,
      ball: 0,
    };
  }
  const a = rad(c.halfAngle!);
  const b = c.tipRadius!;
  const r1 = b * Math.cos(a);
  const h1 = b * (1 - Math.sin(a));
  const slope = 1 / Math.tan(a);
  return {
    radius: R,
    flat: 0,
    height: h1 + (R - r1) * slope,
    h: (r) => (r > R ? Infinity : r <= r1 ? b - Math.sqrt(b * b - r * r) : h1 + (r - r1) * slope),
    r: (h) => (h <= h1 ? Math.sqrt(Math.max(0, h * (2 * b - h))) : Math.min(R, r1 + (h - h1) / slope)),
    coneSlope: slope,
    coneFrom: r1,
    ball: b,
  };
}

/** How far a V's cone reaches up from its tip to its shoulder, mm. */
export const shoulderOf = ({ diameter, tip = 0, angle = 60 }: Pick<Cutter, "diameter" | "tip" | "angle">): number =>
  (diameter - tip) / 2 / Math.tan(rad(angle) / 2);

/** The included angle of a V by what can be measured on it, from tip to shoulder along its axis, mm; degrees. */
export const angleFrom = ({ diameter, tip = 0 }: Pick<Cutter, "diameter" | "tip">, shoulder: number): number =>
  (2 * Math.atan((diameter - tip) / 2 / shoulder) * 180) / Math.PI;

/** @throws Problem `bad-cutter` */
export function checkCutter(c: Cutter): void {
  const bad = (what: string) => new Problem("bad-cutter", `Cutter ${describeCutter(c)}: ${what}`);
  const positive = (v: number | undefined) => v !== undefined && Number.isFinite(v) && v > 0;
  if (!positive(c.diameter) || c.diameter > 200) throw bad("the diameter must be more than 0 and at most 200 mm.");
  if ((c.kind === "v" || c.kind === "drill") && (!positive(c.angle) || c.angle! > 179 || c.angle! < 1))
    throw bad("the included angle must lie between 1° and 179°.");
  if (c.kind === "v") {
    if ((c.tip ?? 0) < 0 || (c.tip ?? 0) >= c.diameter) throw bad("the tip must be narrower than the cutter.");
  }
  if (c.kind === "form") {
    const fault = edgeFault(c.edge, c.diameter);
    if (fault) throw bad(fault);
  }
  if (c.kind === "taper") {
    if (!positive(c.halfAngle) || c.halfAngle! >= 85) throw bad("the half angle must lie between 0° and 85°.");
    if (!positive(c.tipRadius) || c.tipRadius! * Math.cos(rad(c.halfAngle!)) >= c.diameter / 2)
      throw bad("the tip radius must be smaller than the cutter's.");
  }
}

const num = (v: number | undefined): string =>
  v === undefined || !Number.isFinite(v) ? "?" : String(Math.round(v * 1000) / 1000);

/** The cutter in a few words: V 60° × 12.7, flat 3.175, ball 6, taper R0.5 × 5°. */
export function describeCutter(c: Cutter): string {
  if (c.kind === "v") return `V ${num(c.angle)}° × ${num(c.diameter)}${c.tip ? `, tip ${num(c.tip)}` : ""}`;
  if (c.kind === "torch") return `torch, kerf ${num(c.diameter)}`;
  if (c.kind === "taper") return `taper R${num(c.tipRadius)} × ${num(c.halfAngle)}°`;
  return `${c.kind} ${num(c.diameter)}`;
}

/** Cutters one after another in words. */
export const describeCutters = (cutters: readonly Cutter[]): string => cutters.map(describeCutter).join(", then ");

/** Whether two cutters are the same tool in the spindle. */
export function sameCutter(a: Cutter, b: Cutter): boolean {
  return (
    a.kind === b.kind &&
    a.diameter === b.diameter &&
    a.angle === b.angle &&
    (a.tip ?? 0) === (b.tip ?? 0) &&
    a.tipRadius === b.tipRadius &&
    a.halfAngle === b.halfAngle &&
    JSON.stringify(a.edge) === JSON.stringify(b.edge) &&
    a.id === b.id
  );
}

/** A stroke shallower than this is a scratch that sanding takes away, mm. */
export const SCRATCH = 0.3;
