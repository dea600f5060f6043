import { Problem } from "@oaken/core/problem";
import { FORMS } from "@oaken/core/cutters/rack";
import { type Clamp, type StockSettings, ZEROS } from "@oaken/core/job/document";
import { OUTCOMES } from "@oaken/core/job/outcomes";
import { readArguments, seeHelp } from "./arguments.ts";
import { joinNegative, parseClamp, parseFrame, parsePaint, parseStock, positive, withUsualFrame } from "./values.ts";

/** Options that are settings of a part by another name: part and field. `main` is the cut that the outcome is about. */
export const SETTINGS: Record<string, { path: string; value: string; about: string }> = {
  hold: { path: "outline.hold", value: "MM", about: "how closely the outline is followed" },
  specks: { path: "outline.specks", value: "MM2", about: "pieces smaller than this go" },
  trace: { path: "outline.trace", value: "ink|colours|centre", about: "what is traced" },
  colours: { path: "outline.colours", value: "N", about: "colours found, 2 to 16" },
  "keep-colours": {
    path: "outline.keep",
    value: "#rrggbb,…",
    about: "colours whose outline is wanted; all but the ground when not given",
  },
  grow: { path: "outline.grow", value: "MM", about: "strokes wider by this on each side; negative thins them" },
  "close-gaps": { path: "outline.close", value: "MM", about: "gaps narrower than this are filled" },
  "round-corners": { path: "outline.round", value: "MM", about: "corners get this radius" },
  corner: { path: "outline.corner", value: "DEG", about: "turns sharper than this stay corners" },
  bridges: { path: "outline.bridges", value: "MM", about: "ties islands by strips this wide" },
  even: { path: "tone.even", value: "MM", about: "evens out lighting in a window this wide" },
  smooth: { path: "tone.smooth", value: "MM", about: "smooths noise, keeping edges" },
  black: { path: "tone.black", value: "0..1", about: "greys below become black" },
  white: { path: "tone.white", value: "0..1", about: "greys above become white" },
  crop: { path: "picture.crop", value: "X,Y,W,H", about: "part of the picture kept, pixels" },
  turn: { path: "picture.turn", value: "DEG", about: "straightens, counter-clockwise" },
  square: { path: "picture.corners", value: "X,Y,X,Y,X,Y,X,Y", about: "four corners that become a rectangle, pixels" },
  face: { path: "lettering.face", value: "plain|capitals|book|hand|…", about: "the face that words are set in" },
  capitals: { path: "lettering.height", value: "MM", about: "height of the words' capitals" },
  stepover: { path: "cuts.stepover", value: "MM", about: "distance between passes" },
  stepdown: { path: "cuts.stepdown", value: "MM", about: "depth of each pass" },
  entry: { path: "all.entry", value: "auto|helix|ramp|plunge", about: "how the cutter gets into solid stock" },
  ramp: { path: "all.ramp", value: "DEG", about: "how steeply it sinks" },
  way: { path: "main.way", value: "rings|lines|even", about: "how an area is cleared or filled" },
  angle: { path: "main.angle", value: "DEG", about: "of lines in a pocket or hatch" },
  second: { path: "main.second", value: "DEG", about: "crossing lines of a hatch" },
  spacing: { path: "main.spacing", value: "MM", about: "between lines of a hatch" },
  finish: { path: "main.finish", value: "MM", about: "left for a pass round a pocket's walls" },
  first: { path: "main.first", value: "floor|walls", about: "what a pocket does first" },
  leave: { path: "main.leave", value: "MM", about: "stock kept on the walls" },
  direction: { path: "all.direction", value: "climb|conventional", about: "way round" },
  side: { path: "main.side", value: "outside|inside|on", about: "side of the outline that is cut" },
  skin: { path: "main.skin", value: "MM", about: "onion skin taken last" },
  lead: { path: "main.lead", value: "MM", about: "length of the way in" },
  overcut: { path: "main.overcut", value: "MM", about: "past a plasma contour's beginning" },
  peck: { path: "main.peck", value: "MM", about: "depth of each peck of a drill" },
  ridge: { path: "main.ridge", value: "MM", about: "left between a V cutter's passes over a floor" },
  top: { path: "height.top", value: "MM", about: "how far a relief's highest place lies below the stock's top" },
  slope: { path: "height.slope", value: "DEG", about: "the steepest slope of a relief" },
  curve: { path: "height.curve", value: "G,H …", about: "points of the curve from grey to height" },
  thin: { path: "litho.thin", value: "MM", about: "thickness of a sheet where the picture is white" },
  thick: { path: "litho.thick", value: "MM", about: "… and where it is black" },
  lambda: { path: "litho.lambda", value: "MM", about: "thickness in which light falls to 1/e" },
  law: { path: "litho.law", value: "light|straight", about: "how greys become thickness" },
  overscan: { path: "main.overrun", value: "MM", about: "how far a finishing cutter goes past the board's edge" },
  shape: { path: "main.shape", value: "lines|waves|rings|spiral|dots", about: "of shaded lines" },
  erase: { path: "picture.erase", value: "LIST", about: "marks wiped off: rect x y w h; spot x y; …" },
};

/** What `oaken make` was asked to do, as text; lengths in mm already. */
export interface MakeOptions {
  /** none where a job is made of words alone */
  input?: string;
  /** its words */
  text?: string;
  /** the picture that a starting job is begun with */
  picture?: string;
  as: string;
  out: string;
  /** the input is an SVG drawing whose shapes are taken exactly, not traced */
  exact: boolean;
  /** another drawing, and how its shapes are combined with those that are cut */
  with?: string;
  by?: string;
  offset?: string;
  size?: number;
  art?: number;
  stock?: Pick<StockSettings, "width" | "height" | "thickness">;
  /** the board that these options are for, by its name or id; the first when not given */
  board?: string;
  zero?: string;
  material?: string;
  cutter: string[];
  clear: string[];
  rest: string[];
  rough: string[];
  /** a flat rim this wide, for surfaces */
  rim?: string;
  depth?: string;
  ink?: string;
  invert: boolean;
  mirror: boolean;
  /** the picture is a height map: its greys are heights as they are, nothing smoothed */
  map: boolean;
  /** the surface is written as a solid too */
  stl: boolean;
  /** … and as a TIFF */
  tiff: boolean;
  /** the stock's paint: its colour and how thick it is, mm */
  paint?: { colour: string; coat: number };
  channels?: string;
  reduce?: string;
  border?: string;
  tabs?: string;
  dialect?: string;
  machine?: string;
  /** files with the workshop's own cutters, materials and machines */
  rack?: string;
  materials?: string;
  machines?: string;
  /** how files are named, and for whom */
  pattern?: string;
  person?: string;
  class?: string;
  /** a setup sheet */
  sheet: boolean;
  frame?: "through" | "stops";
  clamps: Clamp[];
  cell?: number;
  drawing?: string;
  /** settings by another name: path and value */
  named: [string, string][];
  set: string[];
  json: boolean;
  force: boolean;
}

const named = Object.entries(SETTINGS)
  .map(([k, s]) => `  ${`--${k} ${s.value}`.padEnd(34)} ${s.about}`)
  .join("\n");

export const USAGE = `oaken make PICTURE --as ${OUTCOMES.map((o) => o.id).join("|")} --out DIR [options]
oaken make job.json --out DIR [options]
oaken make start.json PICTURE --person NAME --out DIR [options]     a piece from a starting job
oaken outline PICTURE --size W --out DIR [options]
  lengths in mm, or with a unit (6in)
  --size W               width of the whole picture, proportion kept
  --art W                width of what is found in it, as a ruler shows it on the piece; instead of --size
  --exact                the input is an SVG drawing: its shapes are taken exactly, not traced
  --with FILE.svg        another drawing's shapes, centred unless --set drawing.x=… says otherwise;
                         --by add|subtract|overlap
  --text WORDS           lettering below what is found, or by itself where no picture is named; \\n begins a line
  --offset MM            edges moved outward, or inward where it is less than 0
  --stock WxHxT          stock as measured
  --zero CORNER          ${ZEROS[0]} … ${ZEROS[ZEROS.length - 1]}
  --material ID          --machine ID          --dialect ID|FILE.json
  --rack FILE  --materials FILE  --machines FILE     the workshop's own, as \`oaken rack export FILE\` writes them
  --pattern TEXT         how programs are named, with {number} {job} {cut} {cutter} {person} {class} {date}
  --person NAME          --class NAME          whose piece it is, in headers and names
  --sheet                writes sheet.pdf, the setup sheet
  --frame [stops]        a program round the bounds above the stock, spindle off; waits at each corner with stops
  --clamp X,Y,W,H,Z      a clamp: from its front-left corner on, Z above the stock; again for each
  --cell MM              how fine the proof is
  --board NAME           the board of a job that the options are for; the first when not given
  --cutter SPEC          ${FORMS}, or an id of the rack; twice for a cut-out roughed by the first
  --clear auto|none|SPEC clearing cutter before a V cutter (auto when not given: the set that is quickest);
                         again for the next, smaller one; cutters of pockets, cut-outs and reliefs are
                         chosen too where none is named
  --rest SPEC|none       a smaller cutter for what the pocket's leaves; again for the next
  --rough SPEC|none      a roughing cutter before a surface is finished; again for the next, smaller one
  --rim MM               a flat rim round a surface        --mirror   a sheet that is seen from its back
  --map                  the picture is a height map, or the file an STL solid: heights as they are
  --stl                  writes surface.stl too: the wanted surface as a solid, else what is left of the stock
  --tiff                 writes height.tif too: the same surface in 16 bits, with its size
  --paint '#rrggbb:MM'   a coat of paint on the stock, and how thick it is
  --kerf MM              a torch with this kerf, for plasma
  --depth F|none         the floor; for a cut-out through the stock when not given
  --ink auto|0..1        --invert
  --channels R,G,B       how much red, green and blue count
  --reduce N|MM          at most N nodes, or held within MM
  --border stock|frame:MM|grow:MM     for raised
  --tabs N|none          --set path=value     any other setting, such as carve.ridge=0.1
  --drawing arcs|lines|splines        how curves are written into outline.dxf
  --json                 print the report      --force   write in spite of findings that stop
${named}`;

/** @throws Problem `usage` or what is wrong with a value */
export function parseMake(args: string[]): MakeOptions {
  const text = { type: "string" } as const;
  const many = { type: "string", multiple: true } as const;
  const parsed = readArguments("make", {
    args: withUsualFrame(joinNegative(args)),
    allowPositionals: true,
    options: {
      as: text,
      text,
      out: text,
      exact: { type: "boolean" },
      with: text,
      by: text,
      offset: text,
      size: text,
      art: text,
      stock: text,
      zero: text,
      material: text,
      cutter: many,
      clear: many,
      rest: many,
      rough: many,
      rim: text,
      mirror: { type: "boolean" },
      map: { type: "boolean" },
      stl: { type: "boolean" },
      tiff: { type: "boolean" },
      paint: text,
      kerf: text,
      depth: text,
      ink: text,
      channels: text,
      reduce: text,
      border: text,
      tabs: text,
      dialect: text,
      machine: text,
      rack: text,
      materials: text,
      machines: text,
      pattern: text,
      person: text,
      class: text,
      sheet: { type: "boolean" },
      frame: text,
      clamp: many,
      board: text,
      cell: text,
      drawing: text,
      set: { type: "string", multiple: true },
      invert: { type: "boolean" },
      json: { type: "boolean" },
      force: { type: "boolean" },
      ...Object.fromEntries(Object.keys(SETTINGS).map((k) => [k, text])),
    },
  });
  const v = parsed.values;
  const [input, picture, ...more] = parsed.positionals;
  if ((input === undefined && v.text === undefined) || more.length > 0)
    throw new Problem(
      "usage",
      `Name one picture or job file; or a starting job and a picture; or words with --text. ${seeHelp("make")}`,
    );
  if (!v.out) throw new Problem("usage", "Say where to write with --out DIR.");
  if (v.size !== undefined && v.art !== undefined)
    throw new Problem("usage", "Give --size, the whole picture's width, or --art, the art's own; not both.");
  if (v.zero && !ZEROS.includes(v.zero))
    throw new Problem("bad-zero", `"${v.zero}" is not a work zero. Known: ${ZEROS.join(", ")}.`);
  return {
    input,
    text: v.text?.replaceAll("\\n", "\n"),
    picture,
    as: v.as ?? "sign",
    out: v.out,
    exact: v.exact ?? false,
    with: v.with,
    by: v.by,
    offset: v.offset,
    size: v.size === undefined ? undefined : positive("--size", v.size, 5000),
    art: v.art === undefined ? undefined : positive("--art", v.art, 5000),
    stock: v.stock === undefined ? undefined : parseStock(v.stock),
    zero: v.zero,
    material: v.material,
    cutter: v.kerf !== undefined ? [`torch:${v.kerf}`] : ((v.cutter as string[] | undefined) ?? []),
    clear: (v.clear as string[] | undefined) ?? [],
    rest: (v.rest as string[] | undefined) ?? [],
    rough: (v.rough as string[] | undefined) ?? [],
    rim: v.rim,
    mirror: v.mirror ?? false,
    map: v.map ?? false,
    stl: v.stl ?? false,
    tiff: v.tiff ?? false,
    paint: v.paint === undefined ? undefined : parsePaint(v.paint),
    depth: v.depth,
    ink: v.ink === "auto" ? undefined : v.ink,
    invert: v.invert ?? false,
    channels: v.channels,
    reduce: v.reduce,
    border: v.border,
    tabs: v.tabs,
    dialect: v.dialect,
    machine: v.machine,
    rack: v.rack,
    materials: v.materials,
    machines: v.machines,
    pattern: v.pattern,
    person: v.person,
    class: v.class,
    sheet: v.sheet ?? false,
    frame: v.frame === undefined ? undefined : parseFrame(v.frame),
    clamps: ((v.clamp as string[] | undefined) ?? []).map(parseClamp),
    board: v.board,
    cell: v.cell === undefined ? undefined : positive("--cell", v.cell, 10),
    drawing: v.drawing,
    named: Object.entries(SETTINGS).flatMap(([k, s]): [string, string][] => {
      const value = (v as Record<string, unknown>)[k];
      return typeof value === "string" ? [[s.path, value]] : [];
    }),
    set: v.set ?? [],
    json: v.json ?? false,
    force: v.force ?? false,
  };
}
