// Before the tests: the decoder's process, which they start as the application does.
import { bundleDecoder } from "./bundle.mjs";

export default async function setup() {
  process.env.OAKEN_DECODER = await bundleDecoder();
}
