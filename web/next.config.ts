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
  // Addresses of earlier versions lead on.
  redirects: async () => [
    { source: "/w/:workshop/look-over/:path*", destination: "/w/:workshop/inspect/:path*", permanent: true },
    { source: "/w/:workshop/people/trail", destination: "/w/:workshop/people/audit-log", permanent: true },
    { source: "/w/:workshop/shelf/mould/:path*", destination: "/w/:workshop/shelf/mold/:path*", permanent: true },
    { source: "/w/:workshop/shelf", has: [{ type: "query", key: "kind", value: "mould" }], destination: "/w/:workshop/shelf?kind=mold", permanent: true },
    { source: "/api/workshops/:workshop/shelf/mould", destination: "/api/workshops/:workshop/shelf/mold", permanent: true },
  ],
  // Pages of an earlier version that are still open ask these.
  rewrites: async () => [{ source: "/api/door/:path*", destination: "/api/auth/:path*" }],
  experimental: { serverActions: { bodySizeLimit: "1mb" } },
};

export default config;
