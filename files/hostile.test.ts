import { expect, it } from "vitest";
import { Problem } from "@oaken/core/problem";
import { decodePicture } from "./decode.ts";
import { readJobFile } from "./jobfile.ts";
import { COSTLY } from "./testing/hostile.ts";
import { SHOP } from "@oaken/core/testing/shop";

// Those that run into the limit of time take ten seconds each; the bench has them all.
const SOME = COSTLY.filter(([name]) => !/^(blurs|uses)/.test(name));

for (const [name, bytes] of SOME)
  it(
    "a drawing that costs too much is drawn or given up with a " + `sentence, and the next picture is read: ${name}`,
    async () => {
      const said = await decodePicture(bytes, "art.svg").then(
        (r) => r.width,
        (e: unknown) => e,
      );
      if (name === "turbulence") expect(String(said)).toMatch(/takes more than (10 s|1 GB)/);
      if (typeof said !== "number") {
        expect(said).toBeInstanceOf(Problem);
        expect((said as Problem).message).toMatch(/^art\.svg (takes more than|cannot be drawn)/);
      }
      const good = Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="30" height="20"><rect width="9" height="9"/></svg>',
      );
      expect((await decodePicture(good, "good.svg")).width).toBe(3000);
    },
  );

it("a job file whose pictures are null, a list or missing is refused in a sentence", () => {
  for (const text of ['{"format":"oaken-job","version":1,"assets":null}', "[]", "null", "5", '{"assets":[]}', "{"])
    expect(() => readJobFile(text, SHOP)).toThrow(Problem);
});
