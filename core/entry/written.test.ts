import { v4, v5 } from "uuid";
import { describe, expect, it } from "vitest";
import { isWrittenLoad, WRITTEN_NAMESPACE } from ".";

describe("a load that a person wrote", () => {
  it("is told from a page load by its id, the same for one session each time", () => {
    const session = v4();
    expect(isWrittenLoad(v5(session, WRITTEN_NAMESPACE))).toBe(true);
    expect(v5(session, WRITTEN_NAMESPACE)).toBe(v5(session, WRITTEN_NAMESPACE));
    for (let i = 0; i < 50; i++) expect(isWrittenLoad(v4())).toBe(false);
    expect(isWrittenLoad("")).toBe(false);
  });
});
