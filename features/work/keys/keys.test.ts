import { describe, expect, it } from "vitest";
import { readKept } from "./kept";
import { KEY_ACTS, KEY_SETS, type KeySet, keyOf, keyProblem, ONE, rebind, shownKey } from "./sets";

const acts = new Set<string>([...KEY_ACTS.map(({ act }) => act), ONE]);

describe("sets of keys", () => {
  it("bind each key to an act there is, and never a key the browser needs", () => {
    for (const { bindings } of KEY_SETS)
      for (const [key, act] of Object.entries(bindings)) {
        expect(acts.has(act)).toBe(true);
        expect([key, keyProblem(key)]).toEqual([key, null]);
      }
  });

  it("let the keyboard reach every act", () => {
    const keyboard = KEY_SETS.find(({ id }) => id === "keyboard") as KeySet;
    expect(new Set(Object.values(keyboard.bindings))).toEqual(new Set(KEY_ACTS.map(({ act }) => act)));
  });

  it("give an act several keys and a key one act", () => {
    const set = KEY_SETS[0] as KeySet;
    const more = rebind(set, "z", "try");
    expect(more.bindings).toMatchObject({ z: "try", t: "try" });
    expect(rebind(more, "z", "met").bindings.z).toBe("met");
    expect(rebind(more, "t", null).bindings).not.toHaveProperty("t");
    expect(set.bindings).not.toHaveProperty("z");
  });

  it("refuse what the browser or the cue needs", () => {
    expect(keyProblem("Tab")).toContain("browser");
    expect(keyProblem("3")).toContain("cue");
    expect(keyProblem("F9")).toBeNull();
  });

  it("name keys as bindings and as a person would", () => {
    expect([keyOf({ key: "G" }), keyOf({ key: "PageDown" }), shownKey(" "), shownKey("ArrowUp"), shownKey("g")]).toEqual([
      "g",
      "PageDown",
      "Space",
      "Arrow Up",
      "G",
    ]);
  });
});

describe("what was kept on the device", () => {
  it.each([null, "", "nonsense{", "[]", "7", '{"chosen":"drum","changed":5}', '{"changed":{"keyboard":{"bindings":null}}}'])(
    "falls back for %s",
    (text) => {
      expect(readKept(text)).toEqual({ chosen: "keyboard", changed: {} });
    },
  );

  it("leaves out what is no binding", () => {
    const text = JSON.stringify({
      chosen: "foot",
      changed: { foot: { bindings: { z: "met", Tab: "try", y: "fly", 3: "mark" }, keyUp: false }, drum: { bindings: { a: "met" } } },
    });
    expect(readKept(text)).toEqual({ chosen: "foot", changed: { foot: { bindings: { z: "met" }, keyUp: false } } });
  });
});
