import { describe, expect, it } from "vitest";
import { inTurn } from "./moment-rows";

const rows = (...keys: string[]) => keys.map((name) => ({ key: name.replace("!", ""), label: "", wanted: name.endsWith("!"), row: null }));
const order = (...keys: string[]) => inTurn(rows(...keys)).map(({ key }) => key);

describe("the rows above the pads", () => {
  it("come with what the moment asks for first, as they stand", () => {
    expect(order("value", "ease!", "conversation", "short!", "free", "where")).toEqual([
      "ease",
      "short",
      "value",
      "conversation",
      "where",
      "free",
    ]);
  });
  it("show the places at rest, or what is watched for where something is", () => {
    expect(order("value", "ease", "free", "where")).toEqual(["where", "free", "value", "ease"]);
    expect(order("ease", "conversation", "free", "where")).toEqual(["conversation", "where", "free", "ease"]);
  });
  it("begin with the gaits where the work is free", () => {
    expect(order("ease", "free!", "where")).toEqual(["free", "ease", "where"]);
  });
});
