import { formatLength } from "../../units.ts";
import type { ChainResult } from "../../job/chain.ts";
import type { Finding, Rule } from "../finding.ts";

/** Fewer pixels than this in a millimetre show as steps and wobbles in the wood. */
const LEAST_PER_MM = 4;

/** A picture too coarse for its size on the stock. */
export const coarsePicture: Rule = ({ build }) => onePicture(build.chains).flatMap(check);

function check({ picture, place }: ChainResult): Finding[] {
  const perMm = 1 / place.scale;
  if (perMm >= LEAST_PER_MM - 0.005) return [];
  const fits = Math.floor(picture.asset!.width / LEAST_PER_MM);
  return [
    {
      code: "coarse-picture",
      severity: "warning",
      message:
        `At ${formatLength(place.width)} mm wide the picture has ${perMm.toFixed(1)} pixels in a millimetre; ` +
        `under ${LEAST_PER_MM} its edges wobble. Use a picture with more pixels, or at most ${fits} mm.`,
      cure: { id: picture.id, field: "width", value: fits, label: `Make it ${fits} mm wide` },
    },
  ];
}

/** One chain of each picture: outlines of the same one say the same. */
const onePicture = (chains: ReadonlyMap<string, ChainResult>): ChainResult[] => [
  ...new Map([...chains.values()].map((c) => [c.picture.id, c])).values(),
];
