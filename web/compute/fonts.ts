import type { Fonts } from "@oaken/core/output/sheet/paper";

/** The application's own fonts, as the setup sheet is set in them. */
const FILES = {
  regular: [
    new URL(
      "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff",
      import.meta.url,
    ),
    new URL(
      "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-400-normal.woff",
      import.meta.url,
    ),
  ],
  bold: [
    new URL(
      "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-600-normal.woff",
      import.meta.url,
    ),
    new URL(
      "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-600-normal.woff",
      import.meta.url,
    ),
  ],
};

/** What lies at addresses of the application itself. */
export const bytesOf = (urls: readonly URL[]): Promise<Uint8Array[]> =>
  Promise.all(urls.map(async (url) => new Uint8Array(await (await fetch(url)).arrayBuffer())));

export const sheetFonts = async (): Promise<Fonts> => {
  const [regular, bold] = await Promise.all([bytesOf(FILES.regular), bytesOf(FILES.bold)]);
  return { regular, bold };
};
