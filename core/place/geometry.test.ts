import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { acrossMetresOf, cornerItems, liesInside, outlineOf, type PlaceItem, type PlaceOutline, putInside } from "./index";

const item = (x: number, y: number, across = 1, down = 1): PlaceItem => ({
  name: "z",
  kind: "zone",
  xMetres: x,
  yMetres: y,
  acrossMetres: across,
  downMetres: down,
});

describe("outlineOf", () => {
  it("needs one size of a round or square place, two of a rectangle", () => {
    expect(outlineOf("round", 18, null)).toEqual({ shape: "round", lengthMetres: 18, widthMetres: 18 });
    expect(outlineOf("square", null, 9)).toEqual({ shape: "square", lengthMetres: 9, widthMetres: 9 });
    expect(outlineOf("rectangle", 60, 25)).toEqual({ shape: "rectangle", lengthMetres: 60, widthMetres: 25 });
    expect(outlineOf("rectangle", 60, null)).toBeNull();
    expect(outlineOf("rectangle", null, 25)).toBeNull();
    expect(outlineOf("round", null, null)).toBeNull();
  });
});

describe("acrossMetresOf", () => {
  it.each([
    ["round", 18, null, 18],
    ["square", null, 20, 20],
    ["rectangle", 60, 25, 25],
    ["rectangle", 20, 40, 20],
    ["rectangle", 60, null, null],
    ["round", null, null, null],
  ] as const)("of %s, %s by %s m is %s", (shape, length, width, across) => {
    expect(acrossMetresOf(shape, length, width)).toBe(across);
  });
});

describe("liesInside", () => {
  const pen: PlaceOutline = { shape: "rectangle", lengthMetres: 20, widthMetres: 10 };
  const round: PlaceOutline = { shape: "round", lengthMetres: 20, widthMetres: 20 };
  it.each([
    [pen, item(0.5, 0.5), true],
    [pen, item(0.4, 0.5), false],
    [pen, item(19.5, 9.5), true],
    [pen, item(10, 9.6), false],
    [round, item(10, 0.5), true],
    [round, item(2, 2), false],
    [round, item(3.5, 3.5), true],
  ])("%#", (outline, one, inside) => {
    expect(liesInside(outline, one)).toBe(inside);
  });
});

describe("putInside", () => {
  it("always puts an item inside, moves one that is there not at all, and changes neither name nor kind", () => {
    const size = fc.double({ min: 1, max: 200, noNaN: true });
    const where = fc.double({ min: -300, max: 300, noNaN: true });
    fc.assert(
      fc.property(fc.constantFrom("round", "square", "rectangle"), size, size, where, where, size, size, (shape, l, w, x, y, a, d) => {
        const outline = outlineOf(shape, l, shape === "rectangle" ? w : l);
        if (outline === null) return false;
        const put = putInside(outline, item(x, y, a, d));
        expect(liesInside(outline, put)).toBe(true);
        expect(putInside(outline, put)).toEqual(put);
        return put.name === "z" && put.kind === "zone";
      }),
      // A pen in which putting an item in twice once moved it by a centimetre.
      { examples: [["round", 10.47418856510325, 1, 0, 0, 1, 5.525989217283663]] },
    );
  });
});

describe("cornerItems", () => {
  it("gives four zones inside, named by the compass; none in a round place", () => {
    const outline: PlaceOutline = { shape: "rectangle", lengthMetres: 60, widthMetres: 25 };
    const corners = cornerItems(outline);
    expect(corners.map(({ name }) => name)).toEqual(["corner NW", "corner NE", "corner SW", "corner SE"]);
    expect(corners.every((corner) => liesInside(outline, corner))).toBe(true);
    expect(cornerItems({ shape: "round", lengthMetres: 18, widthMetres: 18 })).toEqual([]);
  });
});
