import { build, type Metafile } from "esbuild";
import { beforeAll, describe, expect, it } from "vitest";

/** What of the program a page's first script holds: what is left of each file in the pieces an entry needs without being asked for later. */
function held({ outputs }: Metafile, entry: string): string[] {
  const seen = new Set<string>();
  const look = (piece: string) => {
    if (seen.has(piece)) return;
    seen.add(piece);
    for (const { path, kind } of outputs[piece]?.imports ?? []) if (kind === "import-statement" && path in outputs) look(path);
  };
  const first = Object.keys(outputs).find((piece) => outputs[piece]?.entryPoint === entry);
  if (first === undefined) throw new Error(`${entry} is no entry`);
  look(first);
  return [...seen].flatMap((piece) =>
    Object.entries(outputs[piece]?.inputs ?? {}).flatMap(([file, { bytesInOutput }]) => (bytesInOutput > 0 ? [file] : [])),
  );
}

const RECORDERS = ["features/work/recorder.tsx", "features/circle/recorder.tsx"];

// The build of the pages shakes such code out of what it can; here it is not even asked for.
describe("the first script of a recorder", () => {
  let metafile: Metafile;
  beforeAll(async () => {
    const built = await build({
      entryPoints: RECORDERS,
      bundle: true,
      splitting: true,
      format: "esm",
      outdir: "unwritten",
      write: false,
      metafile: true,
      // What is imported and not used is not there.
      treeShaking: true,
      platform: "browser",
      jsx: "automatic",
      external: ["react", "react-dom", "react/jsx-runtime", "next/*"],
      loader: { ".css": "empty" },
      logLevel: "error",
    });
    metafile = built.metafile;
  });

  it.each(RECORDERS)("of %s is without forms, kept documents and charts: nobody fills one in with gloves on", (entry) => {
    const files = held(metafile, entry);
    expect(files.length).toBeGreaterThan(50);
    expect(files.filter((file) => /node_modules\/(yup|zod|chart\.js|react-hook-form)\//.test(file))).toEqual([]);
  });
});
