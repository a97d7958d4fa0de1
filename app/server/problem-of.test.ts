import { describe, expect, it } from "vitest";
import { ConflictError, EventConflictError, GoneError, NotFoundError, UnknownSessionError } from "@/store";
import { FieldsRefused, problemOf } from "./problem-of";

const sqlite = (code: string) => Object.assign(new Error(`${code}: said by the disk`), { code });
/** As the dialect wraps it. */
const wrapped = (code: string) => Object.assign(new Error("wrapped"), { name: "SequelizeDatabaseError", parent: sqlite(code) });

describe("what an error means to whoever asked", () => {
  it.each([
    [new NotFoundError("There is no such horse."), 404, undefined],
    [new GoneError("This place has been removed."), 422, "gone"],
    [new ConflictError("taken"), 409, "conflict"],
    [new UnknownSessionError(["x"]), 404, "unknown-session"],
    [new EventConflictError(["x"]), 409, "event-conflict"],
    [new FieldsRefused([{ path: "a", message: "b" }]), 422, undefined],
    [sqlite("SQLITE_FULL"), 507, "store-full"],
    [wrapped("SQLITE_FULL"), 507, "store-full"],
    [wrapped("SQLITE_BUSY"), 503, "store-held"],
    [wrapped("SQLITE_IOERR"), 503, "store-unwritable"],
    [wrapped("SQLITE_READONLY"), 503, "store-unwritable"],
    [sqlite("SQLITE_CORRUPT"), 500, "store-damaged"],
  ])("%s", (error, status, code) => {
    expect(problemOf(error)).toMatchObject({ status, ...(code === undefined ? {} : { code }) });
  });

  it("a fault of the program means nothing to them", () => {
    expect(problemOf(new TypeError("x is undefined"))).toBeNull();
    expect(problemOf("thrown text")).toBeNull();
  });
});
