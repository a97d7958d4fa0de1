import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { HELP } from "@/scripts/help.mjs";

const { scripts } = JSON.parse(readFileSync("package.json", "utf8")) as { scripts: Record<string, string> };

describe("--help", () => {
  it("is there for every command of the README, and runs none of them", () => {
    const commands = Object.keys(scripts).filter((name) => !["lint", "types", "screenshots", "fuzz", "demo"].includes(name));
    expect(commands.filter((name) => !(name in HELP))).toEqual([]);
  });

  it.each([
    ["start.mjs", [], "npm start"],
    ["run.mjs", ["analyse"], "npm run -s analyse"],
    ["run.mjs", ["purge"], "npm run -s purge"],
    ["bench.mjs", [], "npm run bench"],
    ["test.mjs", [], "npm test"],
  ])("%s %s", (file, parameters, first) => {
    const run = spawnSync(process.execPath, [`scripts/${file}`, ...parameters, "--help"], { encoding: "utf8" });
    expect([run.status, run.stdout.split("\n")[0]?.startsWith(first)]).toEqual([0, true]);
  });
});
