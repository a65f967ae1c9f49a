import type { NextConfig } from "next";

const config: NextConfig = {
  transpilePackages: ["@hearth/core"],
  serverExternalPackages: ["pg", "pino", "pdfkit", "piscina"],
  // Types are checked by their own step of the test command; the build need not do it again.
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  devIndicators: false,
  outputFileTracingRoot: new URL("..", import.meta.url).pathname,
  turbopack: { root: new URL("..", import.meta.url).pathname },
  experimental: { serverActions: { bodySizeLimit: "1mb" } },
};

export default config;
