import { describe, expect, it } from "vitest";
import { isOurs, OURS_HEADER } from "./ours";

describe("an answer", () => {
  it("is the program's own by its header, whatever its status", () => {
    expect(isOurs(new Response("", { headers: { [OURS_HEADER]: "build" } }))).toBe(true);
    expect(isOurs(new Response("no room", { status: 507, headers: { [OURS_HEADER]: "build" } }))).toBe(true);
    // A portal, a proxy: a page with 200 all the same.
    expect(isOurs(new Response("<html>Accept our terms</html>", { headers: { "content-type": "text/html" } }))).toBe(false);
    expect(isOurs({ type: "opaqueredirect", headers: new Headers() })).toBe(true);
  });
});
