import { expect, it } from "vitest";
import { RequestIds } from "./use-request-id";

it("a request sent again keeps its id; one that was changed is another", () => {
  const ids = new RequestIds();
  const first = ids.idFor({ horse: "a", place: null });
  expect(first).toMatch(/^[0-9a-f-]{36}$/);
  expect(ids.idFor({ horse: "a", place: null })).toBe(first);
  const second = ids.idFor({ horse: "a", place: "b" });
  expect(second).not.toBe(first);
  expect(ids.idFor({ horse: "a", place: null })).not.toBe(first);
});
