import { existsSync, readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { describe, expect, it } from "vitest";

const pages = [
  "README.md",
  "CONTRIBUTING.md",
  ...readdirSync("docs", { recursive: true, encoding: "utf8" }).map((file) => join("docs", file)),
].filter((file) => file.endsWith(".md"));
/** Folders of the program, as a path in the docs begins. */
const PATH = /`((?:app|features|ui|store|network|workers|core|library|demo|scripts|tests)\/[\w./[\]-]+)`/g;
const LINK = /\]\((?!https?:|#)([^)#]+)(?:#[^)]*)?\)/g;

describe("the docs", () => {
  it.each(pages)("%s names files and folders that are there, and links to pages that are", (page) => {
    const text = readFileSync(page, "utf8");
    const missing = [
      ...[...text.matchAll(PATH)]
        .map(([, path = ""]) => path)
        .filter((path) => !["", ".ts", ".tsx", ".mjs"].some((end) => existsSync(path + end))),
      ...[...text.matchAll(LINK)].map(([, link = ""]) => join(dirname(page), link)).filter((path) => !existsSync(path)),
    ];
    expect(missing).toEqual([]);
  });

  it("lead from the map to every page", () => {
    const map = readFileSync("docs/architecture.md", "utf8");
    for (const page of readdirSync("docs/architecture")) expect(map, page).toContain(`](architecture/${page})`);
    for (const page of ["glossary.md", "proof.md", "numbers.md", "measures.md", "commands.md", "events.md", "formats.md", "security.md"])
      expect(map, page).toContain(`](${page})`);
  });
});
