import { describe, expect, it } from "vitest";
import type { BoardJob, Clamp } from "../job/document.ts";
import { zeroWords, ZEROS } from "../job/document.ts";
import { checkBoard } from "../job/schema.ts";
import { profileOf } from "../cutters/profile.ts";
import { built } from "../testing/building.ts";
import type { FindingCase } from "../testing/findings.ts";
import { seeded } from "../testing/random.ts";
import { begun, cutterNamed } from "../testing/shop.ts";
import { eachPiece } from "../toolpath/pieces.ts";
import type { Finding } from "./finding.ts";
import { inspect } from "./inspect.ts";

const [W, H] = [300, 200];
/** A dark ring on white. */
const data = new Uint8Array(4 * W * H).fill(255);
for (let y = 0; y < H; y++)
  for (let x = 0; x < W; x++) {
    const r = Math.hypot(x - 125, y - 100);
    if (r > 35 && r < 75) data.fill(10, 4 * (y * W + x), 4 * (y * W + x) + 3);
  }
const picture = { width: W, height: H, data };
const asset = { sha: "c".repeat(64), name: "ring.png", width: W, height: H };

function job(outcome: string, edit: (j: BoardJob) => void = () => {}): BoardJob {
  const clear = outcome === "sign" ? { clear: [cutterNamed("flat3")] } : {};
  const j = begun(outcome, asset, { width: 150, height: 100, thickness: 12 }, clear);
  edit(j);
  return checkBoard(j);
}
const buildOf = (j: BoardJob) => built(j, picture, { cells: 30_000 });
const find = (j: BoardJob): Finding[] => inspect({ build: buildOf(j) });
const set = (id: string, settings: Record<string, number>) => (j: BoardJob) =>
  void Object.assign(j.cuts.find((c) => c.id === id)!.settings, settings);

const CASES: readonly FindingCase[] = [
  {
    what: "a clamp on the art",
    outcome: "sign",
    edit: (j) => void (j.stock.clamps = [{ x: 60, y: 40, width: 30, height: 10, tall: 12 }]),
    code: "into-clamp",
    severity: "stop",
    says: /would run into clamp 1, 12 mm tall/,
  },
  {
    what: "a screw's head on the art, lower than the cutter's rapids",
    outcome: "sign",
    edit: (j) => void (j.stock.clamps = [{ x: 35, y: 46, width: 8, height: 8, tall: 2, round: true }]),
    code: "into-clamp",
    severity: "stop",
    says: /into screw 1/,
  },
  {
    what: "a machine that does not reach so far",
    outcome: "sign",
    edit: (j) => void (j.machine.travelX = 30),
    code: "outside-travel",
    severity: "stop",
    says: /along X; the belt-driven router travels 30 mm/,
  },
  {
    what: "a machine that cannot lift over its clamps",
    outcome: "sign",
    edit: (j) => {
      j.machine.travelZ = 20;
      j.stock.clamps = [{ x: 0, y: 0, width: 4, height: 4, tall: 30 }];
    },
    code: "outside-travel",
    severity: "stop",
    says: /along Z/,
  },
  {
    what: "a zero elsewhere than usual",
    outcome: "sign",
    edit: (j) => void (j.stock.zero = "centre-centre-top"),
    code: "unusual-zero",
    severity: "note",
    says: /zero is the centre, top of the stock.*usually the front left corner/,
  },
  {
    what: "a controller that takes few lines",
    outcome: "sign",
    edit: (j) => void (j.machine.mostLines = 20),
    code: "program-too-long",
    severity: "warning",
    says: /takes 20/,
  },
  {
    what: "a feed that breaks teeth",
    outcome: "pocket",
    edit: set("pocket", { feed: 30000 }),
    code: "chip-too-thick",
    severity: "warning",
    says: /each tooth takes .* more than/,
  },
  {
    what: "a feed at which the cutter rubs",
    outcome: "pocket",
    edit: set("pocket", { feed: 60 }),
    code: "chip-too-thin",
    severity: "warning",
    says: /rubs/,
  },
  {
    what: "a speed that the spindle does not have",
    outcome: "pocket",
    edit: set("pocket", { spindle: 90000 }),
    code: "spindle-out-of-range",
    severity: "warning",
    says: /turns from 8000 to 24000/,
  },
  {
    what: "a shank wider than the cutter, deeper than the cutter stands out of it",
    outcome: "pocket",
    edit: (j) => {
      Object.assign(j.cuts[0].cutter, { fluteLength: 10, reach: 5, shank: 6, diameter: 3 });
      set("pocket", { depth: 6 })(j);
    },
    code: "shank-at-wall",
    severity: "stop",
    says: /goes 6 mm deep; its cutter stands out 5 mm, and its shank, 6 mm wide, would run into the wall/,
  },
  {
    what: "a holder over a surface that is deeper than the cutter stands out",
    outcome: "relief",
    edit: (j) => {
      Object.assign(j.cuts[0].cutter, { fluteLength: 10, reach: 2 });
      j.makings.find((m) => m.kind === "height")!.settings = { depth: 5 };
    },
    code: "shank-at-wall",
    severity: "warning",
    says: /its holder would run into the wall/,
  },
  {
    what: "tabs that break",
    outcome: "cutout",
    edit: (j) => void Object.assign(j.cuts[0].settings, { tabWidth: 2, tabHeight: 0.5 }),
    code: "thin-tabs",
    severity: "warning",
    says: /Tabs of 2 × 0.5 mm break/,
  },
  {
    what: "a name in letters that no controller shows",
    outcome: "sign",
    edit: (j) => void (j.naming = { person: "Иван" }),
    code: "name-letters",
    severity: "note",
    says: /"Иван" has letters that controllers do not show/,
  },
  {
    what: "pieces smaller than the gap between slats",
    outcome: "plasma",
    edit: (j) => void (j.machine.slatGap = 120),
    code: "between-slats",
    severity: "note",
    says: /frees pieces down to \d+(\.\d+)? mm long; the slats of the plasma table lie 120 mm apart/,
  },
];

describe("what the machine and what stands on the stock have to say", () => {
  for (const { what, outcome, edit, code, severity, says } of CASES)
    it(what, () => {
      const found = find(job(outcome, edit)).filter((f) => f.code === code);
      expect(found.length).toBeGreaterThan(0);
      expect(found[0].severity).toBe(severity);
      expect(found[0].message).toMatch(says);
    });
  it("nothing of it where all is as usual", () => {
    const codes = new Set(CASES.map((c) => c.code));
    for (const outcome of ["sign", "pocket"]) expect(find(job(outcome)).filter((f) => codes.has(f.code))).toEqual([]);
  });
  it("a feed or speed that is offered cures what it is offered for", () => {
    for (const { outcome, edit, code } of CASES.slice(6)) {
      const wrong = job(outcome, edit);
      const [finding] = find(wrong).filter((f) => f.code === code);
      // A feed beyond what the machine has is not offered.
      if (finding.cure?.field === undefined) continue;
      set(finding.cure.id, { [finding.cure.field]: Number(finding.cure.value) })(wrong);
      expect(find(wrong).filter((f) => f.code === code)).toEqual([]);
    }
  });
  it("a dialect that splits its files as short as the controller wants cures a program that is too long", () => {
    const isTooLong = (lines: number, parted?: number) => {
      const j = job("sign", (q) => {
        q.machine.mostLines = lines;
        q.dialect = { ...q.dialect, mostLines: parted };
      });
      return find(j).find((f) => f.code === "program-too-long")?.message ?? "";
    };
    expect(isTooLong(150)).toMatch(/the controller of the .* takes 150/);
    expect(isTooLong(150, 150)).toBe("");
    // Unless one stroke is longer than that.
    expect(isTooLong(60, 60)).toMatch(/without a lift.*longer than the 60 lines/);
  });
  it("every work zero is known by words of its own", () =>
    expect(new Set(ZEROS.map(zeroWords)).size).toBe(ZEROS.length));
});

describe("a clamp anywhere", () => {
  const build = buildOf(job("sign"));
  const random = seeded(2027);
  /** How near a cut's axis comes to a clamp while it is lower than the clamp's top: by points along every move. */
  function nearest(clamp: Clamp, cut: (typeof build.cuts)[number]): number {
    let near = Infinity;
    const [cx, cy] = [clamp.x + clamp.width / 2, clamp.y + clamp.height / 2];
    eachPiece(cut.toolpath, (x0, y0, z0, x1, y1, z1) => {
      if (Math.min(z0, z1) >= clamp.tall) return;
      const steps = Math.max(1, Math.ceil(Math.hypot(x1 - x0, y1 - y0) / 0.1));
      for (let k = 0; k <= steps; k++) {
        const [x, y] = [x0 + ((x1 - x0) * k) / steps, y0 + ((y1 - y0) * k) / steps];
        const away = clamp.round
          ? Math.hypot(x - cx, y - cy) - clamp.width / 2
          : Math.hypot(
              Math.max(0, Math.abs(x - cx) - clamp.width / 2),
              Math.max(0, Math.abs(y - cy) - clamp.height / 2),
            );
        near = Math.min(near, away);
      }
    });
    return near;
  }
  it("is found exactly where the cutter touches it, by points along every move", () => {
    let hits = 0;
    for (let k = 0; k < 60; k++) {
      const width = 3 + 20 * random();
      const round = random() < 0.4;
      const clamp: Clamp = {
        x: 150 * random() - 5,
        y: 100 * random() - 5,
        width,
        height: round ? width : 3 + 20 * random(),
        tall: 1 + 3.5 * random(),
        ...(round && { round }),
      };
      const stock = { ...build.job.stock, clamps: [clamp] };
      const found = inspect({ build: { ...build, job: { ...build.job, stock } } });
      for (const cut of build.cuts) {
        const room = nearest(clamp, cut) - profileOf(cut.cut.cutter).radius;
        // Points a tenth of a millimetre apart do not tell nearer than that.
        if (Math.abs(room) < 0.1) continue;
        const isFound = found.some((f) => f.code === "into-clamp" && f.cut === cut.id);
        expect(isFound, JSON.stringify(clamp)).toBe(room < 0);
        if (isFound) hits++;
      }
    }
    expect(hits).toBeGreaterThan(15);
    expect(hits).toBeLessThan(100);
  });
});
