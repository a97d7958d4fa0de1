import { describe, expect, it } from "vitest";
import { reduceSession } from "@/core/record/reduce-session";
import { recorderStart, type StartChange } from "@/tests/support/recorder-start";
import { SessionWriter } from "@/tests/support/session-writer";
import { stageOf } from "./stage";
import type { AtWork } from "./types";

/** Where a session stands after what was written in it. */
function stageAfter(write: (session: SessionWriter) => void, change: StartChange = {}, seen: { ready?: boolean; silent?: boolean } = {}) {
  return stageFrom(recorderStart(change), write, seen);
}
function stageFrom(start: AtWork, write: (session: SessionWriter) => void, seen: { ready?: boolean; silent?: boolean } = {}) {
  const session = new SessionWriter();
  write(session);
  return stageOf(start, { ready: true, silent: false, record: reduceSession(session.events), ...seen });
}
const begun = (session: SessionWriter) => session.add(0, "session.start", { horse: "Bo" });
const looked = (session: SessionWriter) => {
  begun(session);
  session.add(1, "preflight", { skipped: true });
};
const inBlock = (session: SessionWriter) => {
  looked(session);
  session.block(10);
};

describe("where a session stands", () => {
  it("goes from the look-over to a block, between blocks, and to its end", () => {
    expect(stageAfter(() => {})).toBe("look-over");
    expect(stageAfter(begun)).toBe("look-over");
    expect(stageAfter(looked)).toBe("between");
    expect(stageAfter(inBlock)).toBe("work");
    const ended = (session: SessionWriter) => {
      inBlock(session);
      session.add(60, "block.end");
    };
    expect(stageAfter(ended)).toBe("between");
    const finished = (session: SessionWriter) => {
      ended(session);
      session.add(70, "session.end");
    };
    expect(stageAfter(finished)).toBe("finished");
  });

  it("is read first, whatever the server gave", () => {
    expect(stageAfter(inBlock, {}, { ready: false })).toBe("reading");
  });

  it("asks how it goes on after a long silence, only while a block runs", () => {
    expect(stageAfter(inBlock, {}, { silent: true })).toBe("silent");
    expect(stageAfter(looked, {}, { silent: true })).toBe("between");
  });

  it("looks nothing over in a first look, and goes on with the next step", () => {
    expect(stageAfter(begun, { session: { battery: true } })).toBe("between");
  });

  it("asks what is worked where nothing is planned, until something is named", () => {
    const start = recorderStart();
    const free = { ...start, part: { ...start.part, ladderId: null, version: null } };
    expect(stageFrom(free, begun)).toBe("look-over");
    expect(stageFrom(free, looked)).toBe("unplanned");
    const named = (session: SessionWriter) => {
      looked(session);
      session.block(10, { ladder: null, behaviour: "something new" });
      session.add(60, "block.end");
    };
    expect(stageFrom(free, named)).toBe("between");
  });
});
