import { formatLength } from "../units.ts";
import type { Reasoned } from "../reasoned.ts";
import type { Material } from "./materials.ts";
import { rowAt } from "./rows.ts";

/**
 * What an air plasma torch of about 45 A does in mild steel: round values inside the ranges that makers' cut charts
 * publish (feed falls roughly with the 1.2th power of thickness; pierce delay grows with it). Stainless a little
 * slower, aluminium a little faster.
 */
const AT_3_MM = 3300;
const THICKNESS_POWER = 1.2;
const FEED_LIMITS = { least: 250, most: 7500 };

export interface PlasmaNumbers {
  feed: Reasoned;
  pierceHeight: Reasoned;
  pierceDelay: Reasoned;
  cutHeight: Reasoned;
  /** how wide the torch cuts, mm; null where no table tells */
  kerf: number | null;
}

/** The table's figures for a thickness. */
function byTable({ name, sheets }: Material, thickness: number): PlasmaNumbers {
  const rows = sheets!.map((row) => row[0]);
  const [, feed, kerf, pierceHeight, pierceDelay, cutHeight, current] = rowAt(sheets!, thickness);
  const isBeyond = thickness < Math.min(...rows) || thickness > Math.max(...rows);
  const where = isBeyond ? `nearest thickness in the table of` : `${formatLength(thickness)} mm in the table of`;
  const reason = `${where} ${name.toLowerCase()}, ${Math.round(current)} A`;
  return {
    feed: { value: Math.max(10, Math.round(feed / 10) * 10), reason },
    pierceHeight: { value: Math.round(pierceHeight * 10) / 10, reason },
    pierceDelay: { value: Math.round(pierceDelay * 10) / 10, reason },
    cutHeight: { value: Math.round(cutHeight * 10) / 10, reason },
    kerf: Math.round(kerf * 100) / 100,
  };
}

/** What a torch does in a sheet: by the material's own table where it has one. */
export function plasmaFor(material: Material, thickness: number): PlasmaNumbers {
  if (material.sheets) return byTable(material, thickness);
  const share = material.plasma ?? 1;
  const feed =
    Math.round(
      Math.max(FEED_LIMITS.least, Math.min(FEED_LIMITS.most, share * AT_3_MM * (3 / thickness) ** THICKNESS_POWER)) /
        10,
    ) * 10;
  return {
    feed: {
      value: feed,
      reason:
        `45 A in ${formatLength(thickness)} mm ` +
        `${material.name.toLowerCase()}${material.plasma === undefined ? ", as if it were mild steel" : ""}`,
    },
    pierceHeight: { value: 3.8, reason: "two and a half times the cut height keeps the tip out of the blow-back" },
    pierceDelay: {
      value: Math.round((0.1 + 0.1 * thickness) * 10) / 10,
      reason: `until ${formatLength(thickness)} mm are through`,
    },
    cutHeight: { value: 1.5, reason: "the middle of what makers give for 45 A" },
    kerf: null,
  };
}
