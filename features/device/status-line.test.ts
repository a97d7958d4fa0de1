// @vitest-environment happy-dom
import { act, cleanup, render } from "@testing-library/react";
import { createElement } from "react";
import { afterEach, expect, it, vi } from "vitest";
import type { SessionEvent } from "@/core/schemas";
import { SessionWriter } from "@/tests/support/session-writer";
import type { SendingState } from "./sender";
import { StatusLine } from "./status-line";

/** The sender as far as the line hears it: what waits, and who is told of a change. */
const sending = vi.hoisted(() => ({ state: {} as unknown, told: (): void => undefined }));
vi.mock("./sender", () => {
  const sender = {
    snapshot: () => sending.state,
    subscribe: (told: () => void) => {
      sending.told = told;
      return () => undefined;
    },
  };
  return { senderFor: () => sender, NOTHING_SENT: sending.state };
});
vi.mock("next/navigation", () => ({ useRouter: () => ({ push: () => undefined }) }));
afterEach(cleanup);

const none: SendingState = {
  waiting: new Set(),
  refused: new Set(),
  unkept: new Set(),
  sessionsWaiting: new Set(),
  keeps: true,
  held: null,
  stuckSinceMs: null,
};

it("never says that all is saved while the last press is only tapped and not yet drawn", () => {
  const writer = new SessionWriter();
  writer.add(0, "session.start", { horse: "Bo", method: "combined" });
  let newest: readonly SessionEvent[] = [...writer.events];
  sending.state = none;
  const line = render(createElement(StatusLine, { storeId: "s", tapped: () => newest })).getByRole("status");
  expect(line.dataset).toMatchObject({ waiting: "0", onServer: "1" });
  // A press: it is tapped, the sender holds it, and nothing around the line is drawn anew.
  writer.add(3, "trial", { outcome: "met", phase: 1 });
  newest = [...writer.events];
  act(() => {
    sending.state = { ...none, unkept: new Set(newest.slice(1).map(({ id }) => id)) };
    sending.told();
  });
  expect(line.dataset).toMatchObject({ waiting: "1", onServer: "1" });
  act(() => {
    sending.state = none;
    sending.told();
  });
  expect(line.dataset).toMatchObject({ waiting: "0", onServer: "2" });
});
