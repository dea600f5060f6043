/** What a carve needs to know of a cut that clears its wide floors first. */
export interface Clearing {
  stepdown: number;
  leave: number;
}

export const CLEAR: { kind: string; settings?: Clearing } = { kind: "clear" };
