import { describe, expect, it, vi } from "vitest";

vi.mock("../state", () => ({}));

import { signsInSight } from "./conversation-row";
import { namesInOrder } from "./signal-names";

describe("signs in the strip", () => {
  const sign = (name: string) => ({ name, class: "count" as const });

  it("has each sign once, the latest three that were used first", () => {
    const pinned = [sign("eats"), sign("paws"), sign("eats"), sign("bucks"), sign("eyes on me")];
    expect(signsInSight(pinned, []).map(({ name }) => name)).toEqual(["eats", "paws", "bucks", "eyes on me"]);
    const used = [sign("eyes on me"), sign("paws"), sign("paws"), sign("bucks"), { name: "paws", class: "tension" }, sign("sighs")];
    expect(signsInSight(pinned, used).map(({ name }) => name)).toEqual(["bucks", "paws", "eyes on me", "eats"]);
  });

  it("names a sign by what was used last, then by what is known", () => {
    expect(namesInOrder(["a", "b", "c", "d", "e"], ["e", "b", "e", "d", "unknown", "a"])).toEqual(["a", "d", "e", "b", "c"]);
    expect(namesInOrder(["a", "b"], [])).toEqual(["a", "b"]);
  });
});
