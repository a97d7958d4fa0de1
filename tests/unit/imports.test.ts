import { spawnSync } from "node:child_process";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";

/** Whether the linter takes a file at a path that imports from a place. */
function taken(path: string, from: string): boolean {
  const input = `import { x } from "${from}";\n\nexport const y = x;\n`;
  return (
    spawnSync(process.execPath, ["node_modules/@biomejs/biome/bin/biome", "lint", `--stdin-file-path=${path}`], { input }).status === 0
  );
}

describe("imports go one way", () => {
  it.each([
    ["core/evidence/x.ts", "@/store"],
    ["core/evidence/x.ts", "react"],
    ["core/evidence/x.ts", "node:fs"],
    ["core/session/x.ts", "@/ui/measure"],
    ["ui/form/x.ts", "@/features/work/keys"],
    ["ui/form/x.ts", "@/store"],
    ["features/work/x.ts", "@/store"],
    ["features/work/x.ts", "@/app/server/store"],
    ["store/x.ts", "@/features/work/keys"],
    ["store/x.ts", "next/headers"],
  ])("%s may not import %s", (path, target) => {
    expect(taken(path, target)).toBe(false);
  });

  it.each([
    ["features/work/x.ts", "@/ui/measure"],
    ["features/work/x.ts", "@/core/session"],
    ["ui/form/x.ts", "@/core/schemas"],
    ["store/x.ts", "@/core/schemas"],
    ["app/x.ts", "@/features/work/keys"],
  ])("%s may import %s", (path, target) => {
    expect(taken(path, target)).toBe(true);
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
