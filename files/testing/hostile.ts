/** Small drawings that cost whoever draws them far more than they weigh, and files that are damaged on purpose. */

const svg = (inside: string, attributes = 'width="300" height="300"'): Buffer =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${attributes}>${inside}</svg>`,
  );

/** Every group is drawn on a layer of its own, inside the one before. */
const nestedGroups = (deep: number): Buffer =>
  svg('<g opacity=".99">'.repeat(deep) + '<rect width="300" height="300"/>' + "</g>".repeat(deep));

const blurs = (many: number): Buffer =>
  svg(
    '<filter id="f" x="-9" y="-9" width="20" height="20">' +
      '<feGaussianBlur stdDeviation="90"/><feMorphology operator="dilate" radius="90"/>'.repeat(many) +
      '</filter><rect filter="url(#f)" width="300" height="300"/>',
  );

const turbulence = (many: number): Buffer =>
  svg(
    '<filter id="f"><feTurbulence baseFrequency=".9" numOctaves="99"/></filter>' +
      '<rect filter="url(#f)" width="300" height="300"/>'.repeat(many),
  );

/** Each level draws the one below ten times. */
const uses = (levels: number): Buffer =>
  svg(
    '<g id="a0"><rect width="9" height="9"/></g>' +
      Array.from(
        { length: levels },
        (_, k) => `<g id="a${k + 1}">${`<use xlink:href="#a${k}" x="1"/>`.repeat(10)}</g>`,
      ).join("") +
      `<use xlink:href="#a${levels}"/>`,
  );

const pattern = (): Buffer =>
  svg(
    '<pattern id="p" width="0.0001" height="0.0001" patternUnits="userSpaceOnUse"><circle r="9"/></pattern>' +
      '<rect fill="url(#p)" width="300" height="300"/>',
  );

/** Named hostile drawings of a few kilobytes. */
export const COSTLY: readonly [name: string, bytes: Buffer][] = [
  ["nested groups", nestedGroups(120)],
  ["blurs", blurs(30)],
  ["turbulence", turbulence(60)],
  ["uses of uses", uses(7)],
  ["a pattern of dust", pattern()],
  [
    "one stretched over a mile",
    svg('<rect width="1e9" height="1e9"/>', 'width="1e9" height="1e9" viewBox="0 0 1e9 1e9"'),
  ],
  ["dashes without end", svg('<path d="M0 0H300" stroke="#000" stroke-width="300" stroke-dasharray="1e-5"/>')],
];
