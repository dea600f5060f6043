/** A job as a stranger's file may hold it: the shape of one, with anything in its places. */
export interface LooseJob {
  format: unknown;
  version: unknown;
  makings: Record<string, unknown>[];
  boards: {
    stock: Record<string, unknown>;
    cuts: { id: unknown; kind: unknown; reads: unknown; settings: Record<string, unknown> }[];
  }[];
  assets: Record<string, { base64: string }>;
}
