/** Why building ahead is left off: at once for another job, after the pass under way for a bench of this very one. */
export const HALT = { goOn: 0, atOnce: 1, afterPass: 2 } as const;
