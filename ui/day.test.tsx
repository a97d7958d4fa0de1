import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { Day, YardZoneProvider } from "./day";

describe("a day on the server's first drawing", () => {
  it.each([
    ["Pacific/Auckland", "2026-03-10"],
    ["America/Los_Angeles", "2026-03-09"],
    ["Etc/UTC", "2026-03-09"],
  ])("is the yard's in %s", (zone, day) => {
    const html = renderToStaticMarkup(
      <YardZoneProvider zone={zone}>
        <Day ms={Date.UTC(2026, 2, 9, 22, 30)} />
      </YardZoneProvider>,
    );
    expect(html).toBe(`<time dateTime="2026-03-09T22:30:00.000Z">${day}</time>`);
  });
});
