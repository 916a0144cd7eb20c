import type { NextConfig } from "next";

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  // Pictures do not get smaller, and a length that is known beforehand arrives.
  compress: false,
  // ./check has the compiler read everything, tests included; a start need not wait for that.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: ["sharp", "postgres"],
  // Cross-origin isolation: shared memory and exact clocks for the workers.
  headers: async () => [
    {
      source: "/:path*",
      headers: [
        { key: "Cross-Origin-Opener-Policy", value: "same-origin" },
        { key: "Cross-Origin-Embedder-Policy", value: "require-corp" },
        { key: "Cross-Origin-Resource-Policy", value: "same-origin" },
        { key: "X-Content-Type-Options", value: "nosniff" },
        { key: "Referrer-Policy", value: "no-referrer" },
      ],
    },
  ],
};

export default config;
