import { formatLength } from "../../units.ts";
import type { Finding, Rule } from "../finding.ts";
import { productsOf } from "../products.ts";

/** Fewer pixels than this in a millimetre show as steps and wobbles in the wood. */
const LEAST_PER_MM = 4;

/** A picture too coarse for its size on the stock. */
export const coarsePicture: Rule = ({ build }) =>
  productsOf(build, "raster").flatMap(({ making, kind, product: { place } }): Finding[] => {
    const perMm = 1 / place.scale;
    if (perMm >= LEAST_PER_MM - 0.005) return [];
    const fits = Math.floor(making.asset!.width / LEAST_PER_MM);
    const { width } = kind.handles;
    return [
      {
        code: "coarse-picture",
        severity: "warning",
        message:
          `At ${formatLength(place.width)} mm wide the picture has ${perMm.toFixed(1)} pixels in a millimetre; ` +
          `under ${LEAST_PER_MM} its edges wobble. Use a picture with more pixels, or at most ${fits} mm.`,
        ...(width && { cure: { id: making.id, field: width, value: fits, label: `Make it ${fits} mm wide` } }),
      },
    ];
  });
