import { readdirSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { answers, type Destination, HORSE_PAGES, YARD_PAGES } from "./destinations";
import { KNOTS } from "./knots";

const best = (typed: string): string | undefined => {
  const scored = [...HORSE_PAGES, ...YARD_PAGES]
    .map((one: Destination) => ({ path: one.path, score: answers(typed, one.label, one.also) }))
    .filter(({ score }) => score > 0);
  return scored.sort((a, b) => b.score - a.score)[0]?.path;
};

describe("what is typed into Find", () => {
  // The everyday names were written down before the list was, by what people look for.
  it.each([
    ["first look", "/know/first-look"],
    ["body", "/know/touch"],
    ["goes to", "/know/connection"],
    ["limits", "/know/limits"],
    ["over weeks", "/review/weeks"],
    ["try both", "/review/try-both"],
    ["changes", "/review/changes"],
    ["moments", "/review/moments"],
    ["load book", "/review/load"],
    ["chain", "/shape/chains/new"],
    ["remote", "/remote"],
    ["vet", "/know/limits"],
    ["trim", "/know/limits"],
    ["month", "/review/month"],
    ["lunge", "/work/circle"],
    ["farrier", "/know/limits"],
    ["backup", "/store"],
    ["deleted", "/bin"],
    ["export", "/in-out"],
    ["weaker side", "/review/sides"],
    ["VET", "/know/limits"],
  ])("“%s” finds %s first", (typed, path) => {
    expect(best(typed)).toBe(path);
  });

  it("finds a mistyped name behind whatever was hit, and nothing for what is no name", () => {
    expect(answers("libary", "Library")).toBeGreaterThan(0);
    expect(answers("libary", "Library")).toBeLessThan(answers("vet", "Limits", "vet"));
    expect(answers("zzz", "Library", "behaviours")).toBe(0);
  });

  it("knows every page there is to go to", () => {
    const pages = readdirSync("app", { recursive: true, encoding: "utf8" })
      .filter((file) => /(^|\/)page\.tsx$/.test(file))
      .map((file) => `/${file.replaceAll(/\([a-z]+\)\//g, "").replace(/\/?page\.tsx$/, "")}`);
    const known = [
      ...YARD_PAGES.map(({ path }) => path),
      ...[...HORSE_PAGES.map(({ path }) => path), ...KNOTS.map(({ key }) => `/${key}`)].map((path) => `/horses/[horse]${path}`),
    ];
    // What has a thing of its own in its address is found by that thing's name, and three pages are led to.
    const ledTo = ["/moved", "/not-allowed", "/sign-in"];
    const inside = (path: string) => path.replace("/horses/[horse]", "").includes("[") || path === "/places/new";
    expect(pages.filter((path) => !known.includes(path) && !ledTo.includes(path) && !inside(path))).toEqual([]);
    expect(known.filter((path) => !pages.includes(path))).toEqual([]);
  });
});
