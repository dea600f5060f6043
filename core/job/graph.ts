import { type Asset, type Asking, type Given, type MakingKind, type Tools } from "../makings/kind.ts";
import { ENDS, type Gives, type Product, type ProductOf } from "../makings/product.ts";
import { makingKind } from "../makings/register.ts";
import { boxAround, type PictureBox } from "../picture/frame.ts";
import { noProgress, Problem, type Progress } from "../problem.ts";
import { resolve, type Resolved, type Settings } from "../settings/fields.ts";
import type { BoardJob, JobMaking } from "./document.ts";

/** A making with what it gives. */
export interface Made {
  making: JobMaking;
  kind: MakingKind;
  product: Product;
  values: Settings;
  resolved: Record<string, Resolved>;
  /** how long it took, ms; next to nothing where it was kept */
  took: number;
}

/** What following a graph takes besides the job. */
export interface GraphOptions {
  /** progress of each making, by its id */
  step?: (id: string) => Progress;
  /** milliseconds, for the timings */
  now?: () => number;
  /** for a preview: at most so many pixels of each picture */
  preview?: number | null;
}

/** Rounds in which the art and its scale are found from each other, and how still it then is, px. */
const ROUNDS = 4;
const STILL = 0.01;

/** Products of each kind that are kept: pictures are large. */
const KEEP: Record<Gives, number> = { raster: 3, grey: 3, shapes: 8, heights: 4 };

/**
 * The makings of a job, each made when it is asked for. What a making gives is kept under a key of all that it was
 * given, so that a change makes anew only what lies downstream of it.
 */
export class Graph {
  private known = new Map<string, Made | Problem>();
  constructor(
    readonly job: BoardJob,
    private tools: Tools,
    private options: GraphOptions = {},
    /** what is found in pictures, where that is settled */
    private arts: ReadonlyMap<string, PictureBox | null> = new Map(),
  ) {}

  /** @throws Problem where it, or what it reads, cannot be made */
  made(id: string): Made {
    let known = this.known.get(id);
    if (!known) this.known.set(id, (known = this.attempt(id)));
    if (known instanceof Problem) throw known;
    return known;
  }

  /** The nearest making upstream of one, itself included, that gives a kind of product; null where none does. */
  upstream<G extends Gives>(id: string, gives: G): (Made & { product: ProductOf<G> }) | null {
    const found = upstreamOf(this.job, id, (n) => makingKind(n.kind).gives === gives);
    return found ? (this.made(found.id) as Made & { product: ProductOf<G> }) : null;
  }

  /** What a making's automatic values may look at. @throws Problem where what it reads cannot be made */
  asking(id: string): Asking {
    const making = this.making(id);
    const kind = makingKind(making.kind);
    const reads: Record<string, Product | null> = {};
    for (const [name, take] of Object.entries(kind.reads)) {
      const from = making.reads[name];
      reads[name] = from === undefined ? null : this.made(from).product;
      if (reads[name] === null && !take.optional)
        throw new Problem(
          "nothing-to-read",
          `${making.name} has nothing to read. Choose its ${take.label} on its slip.`,
        );
    }
    const { width, height, margin, thickness, material } = this.job.stock;
    return {
      reads: reads as Asking["reads"],
      asset: making.asset ?? null,
      art: kind.isMeasured?.(making.settings) ? this.artIn(making) : null,
      preview: this.options.preview ?? null,
      own: making.settings,
      board: { width, height, margin, thickness, material, foot: this.footBelow(id) },
      person: this.job.naming?.person ?? null,
    };
  }

  /** What others take of the board below what is made from a making, mm: told by what was set on them alone. */
  private footBelow(id: string): number {
    const feet = this.job.makings.map(({ kind, reads, settings }) => {
      const { foot, reads: takes } = makingKind(kind);
      const from = reads[Object.keys(takes)[0]];
      if (!foot || from === undefined) return 0;
      return upstreamOf(this.job, from, (n) => n.id === id) ? foot(settings, this.job.stock) : 0;
    });
    return Math.max(0, ...feet);
  }

  private making(id: string): JobMaking {
    const making = this.job.makings.find((n) => n.id === id);
    if (!making) throw new Problem("unknown-making", `This job has no "${id}".`);
    return making;
  }

  private attempt(id: string): Made | Problem {
    try {
      return this.make(id);
    } catch (e) {
      if (e instanceof Problem) return e;
      throw e;
    }
  }

  private make(id: string): Made {
    const making = this.making(id);
    const kind = makingKind(making.kind);
    const asking = this.asking(id);
    const now = this.options.now ?? (() => 0);
    const t0 = now();
    const tools = this.toolsFor(id);
    const { values, resolved } = resolve(kind.fields, making.settings, kind.context(asking, tools));
    const { reads, asset, art, preview } = asking;
    const set = kind.fields.map((f) => f.key).filter((k) => making.settings[k] !== undefined);
    const given: Given = { reads, asset: asset && fileOf(asset), art, preview };
    const product: Product = tools.kept.of(
      kind.kind,
      [given, values, set],
      (g, v, s) => kind.make(g, v, (key) => s.includes(key), tools),
      KEEP[kind.gives],
    );
    return { making, kind, product, values, resolved, took: now() - t0 };
  }

  private toolsFor(id: string): Tools {
    return { ...this.tools, progress: this.options.step?.(id) ?? noProgress };
  }

  /**
   * What other makings find in a picture that is measured over it, pixels of its raster. Specks, smoothing and evening
   * out are given in mm, so that what is found hangs a little on how large it becomes: it is looked for again at the
   * scale that it leads to.
   */
  private artIn(picture: JobMaking): PictureBox | null {
    const settled = this.arts.get(picture.id);
    if (settled !== undefined) return settled;
    const { makings, stock } = this.job;
    const from = [makings, stock, picture.id, this.options.preview ?? null, [...this.arts]] as const;
    return this.tools.kept.of("art", from, (..._) => {
      let art: PictureBox | null = null;
      for (let round = 0; round < ROUNDS; round++) {
        const found = this.found(picture, art);
        const isStill = art && found && farthestEdge(art, found) < STILL;
        art = found;
        if (!art || isStill) break;
      }
      return { art };
    }).art;
  }

  /** The box round what all makings of a picture find in it, were it measured over `art`. */
  private found(picture: JobMaking, art: PictureBox | null): PictureBox | null {
    const trial = new Graph(this.job, this.tools, this.options, new Map([...this.arts, [picture.id, art]]));
    let box: PictureBox | null = null;
    for (const finder of this.job.makings) {
      const kind = makingKind(finder.kind);
      if (!kind.finds || upstreamOf(this.job, finder.id, (n) => n === picture) === undefined) continue;
      let own: PictureBox | null;
      try {
        own = kind.finds(trial.asking(finder.id), this.toolsFor(finder.id));
      } catch (e) {
        // What cannot be traced is told where it is traced.
        if (!(e instanceof Problem)) throw e;
        own = null;
      }
      box = box && own ? boxAround(box, own) : (own ?? box);
    }
    return box;
  }
}

/** The part of a file that its making hangs on. */
const fileOf = ({ sha, name, width, height }: Asset): Asset => ({ sha, name, width, height });

/** The nearest making upstream of one, itself included, for which `is` holds. */
export function upstreamOf(job: BoardJob, id: string, is: (n: JobMaking) => boolean): JobMaking | undefined {
  const making = job.makings.find((n) => n.id === id);
  if (!making || is(making)) return making;
  for (const r of Object.values(making.reads)) {
    const found = upstreamOf(job, r, is);
    if (found) return found;
  }
  return undefined;
}

/** Whether something is cut from a making, or it is made for that. */
export const isCuttable = (job: BoardJob, m: JobMaking): boolean =>
  ENDS.has(makingKind(m.kind).gives) || job.cuts.some((c) => Object.values(c.reads).includes(m.id));

/** Makings of a job that give a kind of product. */
export const makingsThatGive = (job: BoardJob, gives: Gives): JobMaking[] =>
  job.makings.filter((n) => makingKind(n.kind).gives === gives);

/**
 * The making of a kind of product that a part of a job is about: itself, the nearest one that it is made from, the
 * first made from it, or what a cut works on; else the first there is.
 */
export function aboutOf(job: BoardJob, part: string, gives: Gives): JobMaking | undefined {
  const all = makingsThatGive(job, gives);
  const cut = job.cuts.find((c) => c.id === part);
  const wanted = cut ? (job.cuts.find((c) => c.id === cut.target) ?? cut).reads.art : part;
  const givesIt = (n: JobMaking) => all.includes(n);
  return (
    upstreamOf(job, wanted, givesIt) ??
    all.find((n) => upstreamOf(job, n.id, (m) => m.id === wanted) !== undefined) ??
    all[0]
  );
}

const farthestEdge = (a: PictureBox, b: PictureBox): number =>
  Math.max(
    Math.abs(a.x - b.x),
    Math.abs(a.y - b.y),
    Math.abs(a.x + a.width - b.x - b.width),
    Math.abs(a.y + a.height - b.y - b.height),
  );
