import type { Handles } from "@oaken/core/cuts/kind";
import { cutSettings } from "@oaken/core/job/contexts";
import { cutKind } from "@oaken/core/cuts/register";
import { type BoardJob, type JobCut, type JobMaking, takeMachine } from "@oaken/core/job/document";
import { makingKind, MAKINGS } from "@oaken/core/makings/register";
import { drawingStyle } from "@oaken/core/output/dxf";
import { checkPattern } from "@oaken/core/output/gcode/names";
import { Problem } from "@oaken/core/problem";
import { dialectIn, materialIn, type Shop } from "@oaken/core/shop/shop";
import { type Field, parseSetting } from "@oaken/core/settings/fields";
import type { MakeOptions } from "./options.ts";

/** Puts the options into the document, as if a person had set them on the slips. */
export function configure(job: BoardJob, o: MakeOptions, shop: Shop): void {
  if (o.stock) Object.assign(job.stock, o.stock);
  if (o.paint) [job.stock.paint, job.stock.coat] = [o.paint.colour, o.paint.coat];
  if (o.zero) job.stock.zero = o.zero;
  if (o.material) job.stock.material = materialIn(shop, o.material);
  if (o.machine) takeMachine(job, o.machine, shop);
  if (o.dialect) job.dialect = dialectIn(shop, o.dialect);
  if (o.clamps.length > 0) job.stock.clamps = o.clamps;
  const { pattern, person, class: ofClass } = o;
  if (pattern !== undefined) checkPattern(pattern);
  if (pattern !== undefined || person !== undefined || ofClass !== undefined)
    job.naming = {
      ...job.naming,
      ...(pattern !== undefined && { pattern }),
      ...(person !== undefined && { person }),
      ...(ofClass !== undefined && { class: ofClass }),
    };
  if (o.cell) job.cell = o.cell;
  const making = (kind: string) => job.makings.find((n) => n.kind === kind);
  const set = (path: string, value: string) => applySetting(job, path, value);
  if (o.by !== undefined) set("combine.how", o.by);
  if (o.offset !== undefined) set("combine.offset", o.offset);
  if (o.size) setWidth(job, o.size, "picture");
  if (o.art) setWidth(job, o.art, "art");
  if (o.invert) making("tone")!.settings.invert = true;
  if (o.ink !== undefined) set("outline.ink", o.ink);
  if (o.channels !== undefined) {
    const parts = o.channels.split(/[\s,:]+/);
    if (parts.length !== 3)
      throw new Problem(
        "bad-setting",
        `--channels ${o.channels}: write how much red, green and blue count, such as 0.6,0.4,0.`,
      );
    ["red", "green", "blue"].forEach((k, i) => set(`tone.${k}`, parts[i]));
  }
  if (o.reduce !== undefined) set(/^\d+$/.test(o.reduce) ? "outline.nodesMost" : "outline.hold", o.reduce);
  if (o.drawing !== undefined) job.drawing = drawingStyle(o.drawing);
  const main = job.cuts.findLast((c) => !c.target);
  for (const [path, value] of o.named) set(path, value);
  if (o.depth !== undefined && main) {
    const { depth, unlimited } = cutKind(main.kind).handles;
    if (o.depth === "none" && unlimited) main.settings[unlimited.field] = unlimited.value;
    else {
      // A cut that goes through by itself must be told that it is not to.
      if (unlimited && isUnlimited(job, main, unlimited)) main.settings[unlimited.field] = !unlimited.value;
      // How deep a surface goes is its own affair, not the cut's.
      const surface = job.makings.find((m) => makingKind(m.kind).handles.depth);
      const isSurface = depth === undefined && surface !== undefined;
      set(
        isSurface ? `${surface.id}.${makingKind(surface.kind).handles.depth}` : `${main.id}.${depth ?? "depth"}`,
        o.depth,
      );
    }
  }
  const { crossed } = main ? cutKind(main.kind).handles : {};
  if (crossed && o.named.some(([path]) => path === "main.second")) set(`${main!.id}.${crossed.field}`, crossed.value);
  if (o.map) asItIs(making("height"));
  if (o.mirror) set("litho.mirror", "on");
  if (o.rim !== undefined) rimmed(job, o.rim, set);
  if (main) configureHandles(main, cutKind(main.kind).handles, o, set);
  for (const s of o.set) {
    const at = s.indexOf("=");
    if (at < 1) throw new Problem("bad-setting", `--set ${s}: write path=value, such as carve.ridge=0.1.`);
    set(s.slice(0, at), s.slice(at + 1));
  }
}

/** The width of what the job is made from: of its picture, or of its drawing, which has no blank surround. */
function setWidth(job: BoardJob, width: number, measured: "picture" | "art"): void {
  for (const n of job.makings) {
    const kind = makingKind(n.kind);
    if (!kind.handles.width) continue;
    n.settings[kind.handles.width] = width;
    if (kind.isMeasured) n.settings.measured = measured;
    return;
  }
}

/** A height map's greys are heights as they are: nothing smoothed, and not spread over the depth. */
function asItIs(height: JobMaking | undefined): void {
  if (height) height.settings = { curve: "0,0 1,1", ...height.settings, smooth: 0 };
}

type Set = (path: string, value: string) => void;

/** A flat rim round every surface of a job. */
function rimmed(job: BoardJob, wide: string, set: Set): void {
  for (const { id, kind } of job.makings) {
    const { rim } = makingKind(kind).handles;
    if (!rim) continue;
    if (rim.field && rim.value) set(`${id}.${rim.field}`, rim.value);
    set(`${id}.${rim.width}`, wide);
  }
}

/** Whether a cut goes as deep as it likes, as its settings stand. */
const isUnlimited = (job: BoardJob, cut: JobCut, { field, value }: NonNullable<Handles["unlimited"]>): boolean =>
  cutSettings(job)[cut.id][field].value === value;

function configureHandles(
  main: JobCut,
  { tabs, border }: Handles,
  o: MakeOptions,
  set: (path: string, value: string) => void,
): void {
  if (o.tabs !== undefined && tabs) set(`${main.id}.${tabs.field}`, o.tabs === "none" ? "0" : o.tabs);
  if (o.border === undefined || !border) return;
  const [kind, width] = o.border.split(":");
  set(`${main.id}.${border.field}`, kind);
  if (width) set(`${main.id}.${border.width}`, width);
}

function applySetting(job: BoardJob, path: string, value: string): void {
  const [id, key] = path.split(".");
  const main = job.cuts.findLast((c) => !c.target);
  if (id === "all" || id === "cuts") {
    // The main cut's where it has such a setting, else that of every cut that does; or of all of them.
    const every = job.cuts.filter((c) => cutKind(c.kind).fields.some((f) => f.key === key));
    const having = id === "cuts" && main && every.includes(main) ? [main] : every;
    if (having.length === 0) throw new Problem("bad-setting", `--${key} ${value}: no cut of this job has a ${key}.`);
    for (const c of having) applySetting(job, `${c.id}.${key}`, value);
    return;
  }
  if (id === "stock") {
    if (key !== "margin")
      throw new Problem("bad-setting", `"${path}" is not a setting. Of the stock only stock.margin is set this way.`);
    job.stock.margin = parseSetting(
      { key, label: "Margin", type: "length", min: 0, max: 500, auto: () => ({ value: 0, reason: "" }) },
      value,
    ) as number;
    return;
  }
  const parts = [...job.makings, ...job.cuts];
  const part = parts.find((p) => p.id === id || p.kind === id) ?? (id === "main" ? main : undefined);
  if (!part)
    throw new Problem(
      "bad-setting",
      `"${path}": there is no "${id}" in this job. Parts: ${parts.map((p) => p.id).join(", ")}.`,
    );
  const fields = (MAKINGS.find((m) => m.kind === part.kind) ?? cutKind(part.kind)).fields as readonly Field[];
  const field = fields.find((f) => f.key === key);
  if (!field)
    throw new Problem(
      "bad-setting",
      `"${path}": ${part.name} has no "${key}". It has ${fields.map((f) => f.key).join(", ")}.`,
    );
  part.settings[key] = parseSetting(field, value);
}
