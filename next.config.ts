import type { NextConfig } from "next";

const config: NextConfig = {
  // They load native code and must not be bundled.
  serverExternalPackages: ["sequelize", "sqlite3", "umzug"],
  poweredByHeader: false,
  // The browser sits on the same machine: packing costs more than it saves.
  compress: false,
  reactStrictMode: true,
  devIndicators: false,
  // Types and lint are steps of their own in npm test.
  typescript: { ignoreBuildErrors: true },
};

export default config;
