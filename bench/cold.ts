import { mkdtemp, readFile, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { warmUp } from "@oaken/core/outline/warm";
import { toGrey } from "@oaken/core/picture/tone";
import { decodePicture } from "@oaken/files/decode";
import { pictureOfTruth, TRUTHS } from "../demo/truth.ts";
import { inOwnProcess, ms, row } from "./measure.ts";
import { fit, LEVEL, potraceOf } from "./edge.ts";

/** Processes of their own in which each tracer runs for the first time; what they print is read. */
export async function benchCold(): Promise<void> {
  console.log(
    "\nThe first run in a fresh process on 2,000 px, and the tenth; ours is warmed while a picture is decoded, as " +
      "the application and the command line do",
  );
  for (const t of TRUTHS) {
    const folder = await mkdtemp(join(tmpdir(), "oaken-cold-"));
    const file = join(folder, "picture.png");
    await writeFile(
      file,
      await sharp(await pictureOfTruth(t, 2001))
        .png()
        .toBuffer(),
    );
    const run = (who: string): number[] => JSON.parse(inOwnProcess("trace", who, file)) as number[];
    /** The run whose first time is the middle one of five. */
    const typical = (who: string): number[] => Array.from({ length: 5 }, () => run(who)).sort((a, b) => a[0] - b[0])[2];
    const [plain, warmed] = ["plain", "warmed"].map(typical);
    const theirs = run("library");
    await rm(folder, { recursive: true });
    row(
      t.name,
      `${ms(warmed[0])} / ${ms(theirs[0])}`,
      `cold, ${(warmed[0] / warmed[9]).toFixed(1)} × the tenth (asked 2.5 at most); ` +
        `${ms(plain[0])} without warming; ` +
        `tenth ${ms(warmed[9])} / ${ms(theirs[9])}`,
    );
  }
}

/** What `benchCold` runs in a process of its own: one tracer ten times on a picture; prints the times, ms. */
export async function onceInProcess(who: string, file: string): Promise<void> {
  const bytes = await readFile(file);
  const times: number[] = [];
  if (who === "library") {
    for (let k = 0; k < 10; k++) times.push((await potraceOf(bytes)).time);
  } else {
    const decoding = decodePicture(bytes, file);
    if (who === "warmed") warmUp();
    const grey = toGrey(await decoding, {});
    for (let k = 0; k < 10; k++) {
      const t0 = performance.now();
      fit(grey, LEVEL);
      times.push(performance.now() - t0);
    }
  }
  console.log(JSON.stringify(times));
}
