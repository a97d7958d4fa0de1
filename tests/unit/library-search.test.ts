import { describe, expect, it } from "vitest";
import { searched, searchOf } from "@/features/shape/library/search";
import { LIBRARY } from "@/library";
import { SYNONYMS } from "@/library/synonyms";

const entries = LIBRARY.map(({ key, name, finished }) => ({ key, name, finished, also: SYNONYMS[key] ?? [] }));
const index = searchOf(entries);
const found = (typed: string) => searched(index, entries, typed).map(({ key }) => key);

describe("the words trainers use", () => {
  it("are 150 at least, each of a behaviour that is there, none twice for one", () => {
    const keys = new Set(LIBRARY.map(({ key }) => key));
    expect(Object.keys(SYNONYMS).filter((key) => !keys.has(key))).toEqual([]);
    expect([...keys].filter((key) => (SYNONYMS[key] ?? []).length === 0)).toEqual([]);
    for (const list of Object.values(SYNONYMS)) expect(new Set(list).size).toBe(list.length);
    expect(Object.values(SYNONYMS).flat().length).toBeGreaterThanOrEqual(150);
    expect(new Set(Object.values(SYNONYMS).flat()).size).toBeGreaterThanOrEqual(150);
  });

  // What a trainer would type, and what they would expect to be offered among the first.
  it.each([
    ["yield", "hind-yield"],
    ["hindquarters", "hind-yield"],
    ["back up", "back-lead"],
    ["lunge", "circle-walk"],
    ["side pass", "side-away"],
    ["send", "send-past"],
    ["catch", "come-to-shoulder"],
    ["trailer", "load"],
    ["farrier", "feet"],
    ["hoof", "feet"],
    ["spray", "tool-quiet"],
    ["clip", "tool-quiet"],
    ["liberty", "stay-with-me"],
    ["recall", "come-to-shoulder"],
    ["ground tie", "stand-wait"],
    ["headcollar", "first-halter"],
  ])("%s finds %s", (typed, key) => {
    expect(found(typed).slice(0, 6)).toContain(key);
  });

  it.each([
    ["trialer", "load"],
    ["hindquaters", "hind-yield"],
    ["farier", "feet"],
    ["liberti", "stay-with-me"],
    ["lungeing", "circle-walk"],
    ["TRAILER ", "load"],
  ])("%s, mistyped, finds %s all the same", (typed, key) => {
    expect(found(typed)).toContain(key);
  });

  it("says nothing where nothing fits, and everything where nothing is typed", () => {
    expect(found("submarine")).toEqual([]);
    expect(found("xq")).toEqual([]);
    expect(found(" ")).toHaveLength(LIBRARY.length);
  });
});
