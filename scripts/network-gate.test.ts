import { describe, expect, it } from "vitest";
import { cookiesOf, plainPath } from "./network-gate";

describe("an address as it is judged", () => {
  it.each([
    ["/", "/"],
    ["/api/pack?x=/../y", "/api/pack"],
    ["/api/%73tore", "/api/store"],
    ["/horses/a%20b/work", "/horses/a b/work"],
    ["//api/store", null],
    ["/api//store", null],
    ["/api/../store", null],
    ["/api/%2e%2e/store", null],
    ["/api/.%2e/store", null],
    ["/api%2fstore", null],
    ["/api%5Cstore", null],
    ["/api\\store", null],
    ["/api/%252e%252e/store", null],
    ["/api/%zz", null],
    ["api/store", null],
    // What the page framework would take for the data of another page: /shape/new behind, a ladder by name before.
    ["/horses/h/shape/new.rsc", null],
    ["/horses/h/shape/new.RSC", null],
    ["/horses/h/shape/new.segments/_tree.segment.rsc", null],
    ["/horses/h/shape/new%2ersc", null],
    ["/_next/data/build/store.json", null],
    ["/horses/h/review?_rsc=1a2b", "/horses/h/review"],
    ["/_next/static/chunks/app-rsc-1.js", "/_next/static/chunks/app-rsc-1.js"],
    ["http://elsewhere/api", null],
    ["", null],
  ])("%s is %s", (url, path) => expect(plainPath(url)).toBe(path));
});

describe("cookies", () => {
  it("are read by name, the first of a name", () => {
    expect([...cookiesOf("a=1; __Host-deft=x=y ;a=2; =z; lonely")]).toEqual([
      ["a", "1"],
      ["__Host-deft", "x=y"],
    ]);
    expect(cookiesOf(undefined).size).toBe(0);
  });
});
