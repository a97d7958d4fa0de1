// Runs one of the TypeScript commands: installs what is missing, bundles the command, starts it.
// Usage: node scripts/run.mjs NAME [arguments]
import { AsyncLocalStorage } from "node:async_hooks";
import { mkdirSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { ensureInstalled, ROOT } from "./bootstrap.mjs";
import { helped } from "./help.mjs";

if (helped(process.argv[2] ?? "")) process.exit(0);

ensureInstalled();
const { build } = await import("esbuild");
const name = process.argv[2];
const known = readdirSync(join(ROOT, "scripts"))
  .filter((file) => file.endsWith(".ts"))
  .map((file) => file.slice(0, -3));
if (!known.includes(name)) {
  process.stderr.write(`There is no command ${name ?? ""}. Known: ${known.join(", ")}.\n`);
  process.exit(2);
}
// A folder for each process: two commands started at once must not write over each other.
const out = join(ROOT, ".cache", "commands", String(process.pid));
mkdirSync(out, { recursive: true });
const workers = known.filter((file) => file === `${name}-worker`);
await build({
  absWorkingDir: ROOT,
  entryPoints: [name, ...workers].map((file) => `scripts/${file}.ts`),
  outdir: out,
  bundle: true,
  platform: "node",
  format: "esm",
  target: "node20",
  packages: "external",
  // A command asks pages as a server does: what keeps a module from a browser has nothing to keep here, and
  // Next.js names its modules without the ending that Node.js asks for.
  alias: { "server-only": "./tests/support/empty.ts" },
  plugins: [
    {
      name: "next-with-endings",
      setup: ({ onResolve }) => onResolve({ filter: /^next\/[a-z-]+$/ }, ({ path }) => ({ path: `${path}.js`, external: true })),
    },
  ],
  outExtension: { ".js": ".mjs" },
  logLevel: "error",
});
const { rmSync } = await import("node:fs");
process.once("exit", () => rmSync(out, { recursive: true, force: true }));
// Next.js finds it there in its own server; page-reads asks its pages without one.
globalThis.AsyncLocalStorage ??= AsyncLocalStorage;
process.argv.splice(1, 2, join(out, `${name}.mjs`));
await import(pathToFileURL(join(out, `${name}.mjs`)).href);
