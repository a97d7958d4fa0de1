import type { NextConfig } from "next";

const config: NextConfig = {
  // They load native code and must not be bundled.
  serverExternalPackages: ["sequelize", "sqlite3", "umzug"],
  poweredByHeader: false,
  // The browser sits on the same machine: packing costs more than it saves.
  compress: false,
  // The title comes with the page and not a moment after it: a page without a title is no page to a screen reader.
  htmlLimitedBots: /.*/,
  reactStrictMode: true,
  devIndicators: false,
  // Types and lint are steps of their own in npm test.
  typescript: { ignoreBuildErrors: true },
};

export default config;
