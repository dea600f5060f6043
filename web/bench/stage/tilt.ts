/** Tilt of the lowest view, radians from straight above. */
export const MOST_TILT = 1.15;
/** Tilts under this are straight above: there the stock is measured and edited; as a share of the lowest view. */
const PLAN = 0.02;

/** Whether a tilt, as a share of the lowest view, is straight above. */
export const isPlan = (tilt: number): boolean => tilt < PLAN;
