import { spawnSync } from "node:child_process";
import { readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";

/** Whether the linter objects to a file in a folder that imports from a place. */
function refused(folder: string, from: string): boolean {
  const path = join(folder, `probe-${process.pid}-${Math.floor(performance.now() * 1000)}.ts`);
  writeFileSync(path, `import { x } from "${from}";\n\nexport const y = x;\n`);
  try {
    const run = spawnSync(process.execPath, ["node_modules/@biomejs/biome/bin/biome", "lint", path], { encoding: "utf8" });
    return `${run.stdout}${run.stderr}`.includes("noRestrictedImports");
  } finally {
    rmSync(path);
  }
}

describe("imports go one way", () => {
  it.each([
    ["core/evidence", "@/store"],
    ["core/evidence", "react"],
    ["core/evidence", "node:fs"],
    ["core/record", "@/ui/measure"],
    ["ui/form", "@/features/work/keys"],
    ["ui/form", "@/store"],
    ["features/work", "@/store"],
    ["features/work", "@/app/server/store"],
    ["store", "@/features/work/keys"],
    ["store", "next/headers"],
    ["library", "@/ui/measure"],
    ["core/ladder", "@/library"],
  ])("%s may not import %s", (folder, target) => {
    expect(refused(folder, target)).toBe(true);
  });

  it.each([
    ["features/work", "@/ui/measure"],
    ["features/work", "@/core/record"],
    ["ui/form", "@/core/schemas"],
    ["library", "@/core/behaviour"],
    ["store", "@/core/schemas"],
    ["app", "@/features/work/keys"],
  ])("%s may import %s", (folder, target) => {
    expect(refused(folder, target)).toBe(false);
  });
});

describe("the lock file", () => {
  it("holds no registry address and no machine's path", () => {
    const { packages } = JSON.parse(readFileSync("package-lock.json", "utf8")) as { packages: Record<string, { resolved?: string }> };
    expect(Object.values(packages).filter((entry) => entry.resolved !== undefined)).toEqual([]);
  });

  it("pins every dependency exactly", () => {
    const { dependencies, devDependencies } = JSON.parse(readFileSync("package.json", "utf8")) as Record<string, Record<string, string>>;
    for (const version of Object.values({ ...dependencies, ...devDependencies })) expect(version).toMatch(/^\d+\.\d+\.\d+$/);
  });
});

describe("core", () => {
  it("calls no clock and no chance of its own", () => {
    const files = readdirSync("core", { recursive: true, encoding: "utf8" }).filter(
      (file) => file.endsWith(".ts") && !file.endsWith(".test.ts"),
    );
    expect(files.length).toBeGreaterThan(40);
    for (const file of files)
      expect(readFileSync(join("core", file), "utf8"), file).not.toMatch(/Math\.random\(|Date\.now\(|new Date\(\)|performance\.now/);
  });
});
