import type { NextConfig } from "next";

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  // ./check has the compiler read everything, tests included; a start need not wait for that.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: ["sharp", "pg-boss", "postgres"],
  // Cross-origin isolation: shared memory and exact clocks for the workers.
  headers: async () => [
    {
      source: "/:path*",
      headers: [
        { key: "Cross-Origin-Opener-Policy", value: "same-origin" },
        { key: "Cross-Origin-Embedder-Policy", value: "require-corp" },
        { key: "X-Content-Type-Options", value: "nosniff" },
      ],
    },
  ],
};

export default config;
