import { describe, expect, it } from "vitest";
import { onwardsOf } from "../network/sign-in";
import { ownAddress } from "./own-address";
import { placeAt } from "./pen-place";

const AWAY = [
  "//evil.example",
  "/\t/evil.example",
  "/\n/evil.example",
  "/\\evil.example",
  "\\/evil.example",
  "https://evil.example",
  "javascript:alert(1)",
  " /x",
  "",
];

describe("an address of this program", () => {
  it.each(["/", "/horses/h/work?x=1#y", "/pen?away=%2F%2Fevil.example"])("is taken as it is: %s", (path) => {
    expect(ownAddress(path)).toBe(path);
  });
  it.each(AWAY)("leads nowhere else: %j", (address) => {
    expect(ownAddress(address)).toBeNull();
    expect(onwardsOf(`?to=${encodeURIComponent(address)}`)).toBe("/pen");
    expect(placeAt(`?away=${encodeURIComponent(address)}`).away).toBeNull();
  });
});
