import { numbersOf } from "../units.ts";
import { Problem } from "../problem.ts";
import { fieldsFor } from "./list.ts";

/** Places as the settings keep them: x y by turns, semicolons between. @throws Problem `bad-setting` */
export function parsePlaces(text: string, what: string): [number, number][] {
  return text
    .split(";")
    .filter((p) => p.trim())
    .map((p) => {
      const n = numbersOf(p, what);
      if (n.length !== 2)
        throw new Problem("bad-setting", `${what}: write x y; x y …, not "${p.trim().slice(0, 40)}".`);
      return [n[0], n[1]];
    });
}

export const showPlaces = (places: readonly (readonly [number, number])[]): string =>
  places.map(([x, y]) => `${Math.round(x * 100) / 100} ${Math.round(y * 100) / 100}`).join("; ");

/**
 * A setting made of places on the stock that a tool on the stage sets; none at first.
 * @param when shown only then, where it is given
 */
export const placesField = <K extends string, N extends object = object>(
  key: K,
  label: string,
  help: string,
  tool: string,
  when?: (settings: N) => boolean,
) =>
  fieldsFor<unknown, N>().text(key, label, {
    help,
    tool,
    more: true,
    ...(when && { when }),
    example: "20 35; 60 35",
    check: (t) => void parsePlaces(t, label),
    auto: () => ({ value: "", reason: "set by itself" }),
  });
