import { readdirSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { OVER_WEEKS } from "../device/pen-over-weeks";
import { inPen, placeAt } from "../device/pen-place";
import { onwardsOf } from "../network/sign-in";
import { recordersOf } from "../review/recorders";
import { sizeWords } from "../store-care/store-room";
import { limitsOf } from "./browser-limits";

describe("a place in the pen", () => {
  it.each([
    ["/", "/pen?horses=1"],
    ["/horses/h/work", "/pen?horse=h"],
    ["/horses/h/work/late", "/pen?horse=h&late=1"],
    ["/horses/h/work/s-1", "/pen?horse=h&session=s-1"],
    ["/horses/h/review/s-1", "/pen?horse=h&review=s-1"],
    ["/horses/h/review", null],
    ["/horses/h/review/weeks", null],
    ["/horses/h/review/try-both", null],
    ["/horses/h/review/month", null],
    ["/horses/h/know/limits", null],
    ["/settings#taps", "/pen?taps=1"],
    ["/pen?horse=h", "/pen?horse=h"],
    ["/people", null],
  ])("%s is %s", (path, at) => expect(inPen(path)).toBe(at));

  it("is none of the pages over weeks, and knows them all", () => {
    const pages = readdirSync("app/horses/[horse]/(rooms)/review", { withFileTypes: true });
    expect([...OVER_WEEKS].sort()).toEqual(
      pages.flatMap((one) => (one.isDirectory() && !one.name.startsWith("[") ? [one.name] : [])).sort(),
    );
  });

  it("is read from its address", () => {
    expect(placeAt("?horse=h&session=s")).toMatchObject({ horse: "h", session: "s", review: null, late: false });
    expect(placeAt("?goon=1")).toMatchObject({ goOn: true, horse: null });
    expect(placeAt("?away=%2Fpeople%3Fx%3D1").away).toBe("/people?x=1");
    expect(placeAt("")).toMatchObject({ horse: null, horses: false });
  });
});

describe("what a browser cannot do", () => {
  const all = { secure: true, worker: true, wakeLock: true, keeps: true, vibrates: true };
  it("is said with what it means in the pen, and nothing where it can do all", () => {
    expect(limitsOf(all)).toEqual([]);
    expect(limitsOf({ ...all, worker: false })).toEqual([expect.stringContaining("keeps no pages")]);
    expect(limitsOf({ ...all, secure: false })).toHaveLength(1);
    expect(limitsOf({ secure: false, worker: false, wakeLock: false, keeps: false, vibrates: false })).toHaveLength(4);
  });
});

describe("where signing in leads", () => {
  it.each([
    ["?to=%2Fhorses%2Fh%2Fwork", "/horses/h/work"],
    ["", "/pen"],
    ["?to=https%3A%2F%2Fevil.example", "/pen"],
    ["?to=%2F%2Fevil.example", "/pen"],
    ["?to=%2F%5Cevil.example", "/pen"],
    ["?to=javascript%3Aalert(1)", "/pen"],
  ])("%s leads to %s", (search, to) => expect(onwardsOf(search)).toBe(to));
});

describe("who recorded", () => {
  const by = (recorder: string, part?: "leads" | "watches") => ({ recorder, ...(part === undefined ? {} : { part }) });
  it("is said where there were several, or a part was taken", () => {
    expect(recordersOf([by("a:Wenna"), by("b:Wenna")])).toEqual([]);
    expect(recordersOf([by("a:Wenna"), by("a:Wenna:review"), by("a:review")])).toEqual([]);
    expect(recordersOf([by("a:Wenna", "leads")])).toEqual([{ who: "Wenna, leads at the head", taps: 1 }]);
    expect(recordersOf([by("a:Wenna"), by("b:Ilse", "watches"), by("b:Ilse", "watches")])).toEqual([
      { who: "Wenna", taps: 1 },
      { who: "Ilse, watches", taps: 2 },
    ]);
  });
});

describe("a size in words", () => {
  it.each([
    [0, "0 B"],
    [999, "999 B"],
    [1000, "1.0 kB"],
    [2_500_000, "2.5 MB"],
    [999_400_000, "999 MB"],
    [999_900_000, "1.0 GB"],
    [83_000_000_000, "83 GB"],
  ])("%i is %s", (bytes, words) => expect(sizeWords(bytes)).toBe(words));
});
