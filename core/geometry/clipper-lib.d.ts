/** The little of the registry's polygon library that is used here; it comes without types. */
declare module "clipper-lib" {
  export interface IntPoint {
    X: number;
    Y: number;
  }
  export class Clipper {
    /** no output ring touches itself in a point */
    StrictlySimple: boolean;
    AddPaths(paths: IntPoint[][], type: number, closed: boolean): boolean;
    Execute(operation: number, solution: IntPoint[][], subject: number, clip: number): boolean;
  }
  const library: {
    Clipper: typeof Clipper;
    ClipType: { ctUnion: number };
    PolyType: { ptSubject: number };
    PolyFillType: { pftNonZero: number; pftPositive: number; pftEvenOdd: number };
  };
  export default library;
}
