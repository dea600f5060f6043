import type { NextConfig } from "next";
import { dirname } from "node:path";
import { fileURLToPath } from "node:url";

const here = dirname(fileURLToPath(import.meta.url));

const config: NextConfig = {
  // What one build of the application computed another need not compute alike; while it is developed it has no name.
  env: { OAKEN_BUILD: process.env.NODE_ENV === "production" ? Date.now().toString(36) : "" },
  transpilePackages: ["@oaken/core", "@oaken/files"],
  serverExternalPackages: ["sequelize", "sqlite3", "sharp", "umzug", "bmp-ts"],
  turbopack: { root: dirname(here) },
  poweredByHeader: false,
  devIndicators: false,
  async headers() {
    return [
      {
        source: "/:path*",
        headers: [
          { key: "X-Content-Type-Options", value: "nosniff" },
          { key: "X-Frame-Options", value: "DENY" },
          { key: "Referrer-Policy", value: "no-referrer" },
          // Cross-origin isolation: lets a worker be told to stop through shared memory.
          { key: "Cross-Origin-Opener-Policy", value: "same-origin" },
          { key: "Cross-Origin-Embedder-Policy", value: "require-corp" },
          { key: "Cross-Origin-Resource-Policy", value: "same-origin" },
        ],
      },
    ];
  },
};

export default config;
