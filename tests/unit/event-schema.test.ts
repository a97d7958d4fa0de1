import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { checkPayload, EVENT_SCHEMA_VERSION, EVENT_TYPES, type EventType, payloadSchemas, unknownKeys } from "@/core/schemas";
import { eventsPage } from "@/scripts/events-page";

/** What each version of the event schema was, so that none is changed under its number. */
const KNOWN: Readonly<Record<number, string>> = {
  1: "b9bf1605a4f23646",
  2: "0f2934e92c5db3c4",
  3: "df85db2389f7408d",
  4: "bb0c4f984d8df894",
  5: "1ece05ed940f6ac8",
  6: "2170bf21d0fef0f8",
  7: "81841952e8023b3a",
};

describe("the event schema", () => {
  it("is described in the docs as it is", () => {
    expect(readFileSync("docs/events.md", "utf8")).toBe(eventsPage());
  });

  it("has a number of its own for each of its states", () => {
    const described = JSON.stringify(EVENT_TYPES.map((type) => [type, payloadSchemas[type].describe()]));
    expect(createHash("sha256").update(described).digest("hex").slice(0, 16)).toBe(KNOWN[EVENT_SCHEMA_VERSION]);
  });

  it("keeps keys it does not know, so many and so much of them", () => {
    const more = (keys: number, of = 1) => Object.fromEntries(Array.from({ length: keys }, (_, i) => [`later_${i}`, "x".repeat(of)]));
    const given = { ...more(20), zone: "gate" };
    const checked = checkPayload("zone", given);
    expect(checked).toEqual({ ok: true, value: given });
    expect(unknownKeys("zone", given)).toHaveLength(20);
    expect(checkPayload("zone", { ...more(21), zone: "gate" }).ok).toBe(false);
    expect(checkPayload("zone", { ...more(2, 3000), zone: "gate" }).ok).toBe(false);
  });

  it("lets every type say that work went on", () => {
    for (const type of EVENT_TYPES as EventType[]) expect(unknownKeys(type, { went_on: true })).toEqual([]);
  });
});
