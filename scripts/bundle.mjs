// Bundles TypeScript entries for Node: our own workspaces inside, everything from the registry outside.
import { mkdirSync, renameSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = dirname(dirname(fileURLToPath(import.meta.url)));

/** Where the bundle of the decoder's process is; it runs strangers' files, so it is a process of its own. */
export const decoderBundle = join(root, "dist", "decoder.mjs");
/** The bundle, and beside it the part that only job files need. */
export async function bundleDecoder() {
  const parts = [bundle("files/decoder/main.ts", "decoder"), bundle("files/decoder/jobs.ts", "decoder-jobs")];
  return (await Promise.all(parts))[0];
}

/**
 * A few hundredths of a second, so it is done every time. Written beside and renamed: another command started at the
 * same moment never loads half of one.
 * @param entry a file of this checkout, or the source text itself as { contents }
 * @returns the bundle's path, dist/`name`.mjs
 */
export async function bundle(entry, name) {
  // Loaded late: the packages may have been installed only now.
  const { build } = await import("esbuild");
  const outfile = join(root, "dist", `${name}.mjs`);
  mkdirSync(dirname(outfile), { recursive: true });
  const beside = join(root, "dist", `${name}.${process.pid}.part.mjs`);
  const what =
    typeof entry === "string"
      ? { entryPoints: [join(root, entry)] }
      : { stdin: { contents: entry.contents, resolveDir: root, loader: "ts" } };
  await build({
    ...what,
    outfile: beside,
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    packages: "external",
    plugins: [ourOwn],
    logLevel: "error",
  });
  renameSync(beside, outfile);
  return outfile;
}

const ourOwn = {
  name: "our-own",
  setup(b) {
    b.onResolve({ filter: /^@oaken\// }, (a) => {
      const [, room, ...path] = a.path.split("/");
      return { path: join(root, room, `${path.join("/")}.ts`) };
    });
  },
};
