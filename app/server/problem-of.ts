import type { FieldProblem } from "@/core/schemas";
import { brokenConstraint, storeFailure } from "@/store/failure";

/** A problem as a route answers it (RFC 9457). `code` tells a program what `detail` tells a person. */
export interface Problem {
  readonly status: number;
  readonly title: string;
  readonly detail: string;
  readonly code?: string;
  readonly fields?: readonly FieldProblem[];
}

/** Thrown inside a write where its fields cannot stand; nothing of it is then saved. */
export class FieldsRefused extends Error {
  readonly code = "fields-refused";
  constructor(readonly fields: readonly FieldProblem[]) {
    super(fields[0]?.message ?? "Some fields need a look.");
  }
}

const FAILURES = {
  held: { status: 503, title: "Held", detail: "The data is held by another program just now. Nothing was saved; try again in a moment." },
  full: { status: 507, title: "Disk full", detail: "The disk of the server is full. Nothing was saved; make room there." },
  unwritable: {
    status: 503,
    title: "Not writable",
    detail: "The data cannot be written just now. Nothing was saved; look at the disk of the server.",
  },
  damaged: { status: 500, title: "Damaged", detail: "The data on the server is damaged. Nothing was saved; go back to a backup there." },
} as const;

/** What an error means for whoever asked, or null where it is a fault of the program. */
export function problemOf(error: unknown): Problem | null {
  const detail = error instanceof Error ? error.message : "";
  // By its code: each bundle has classes of its own.
  switch (error instanceof Error && "code" in error ? error.code : null) {
    case "not-found":
      return { status: 404, title: "Not found", detail };
    case "gone":
      return { status: 422, title: "Not taken", detail, code: "gone" };
    case "unread":
      return { status: 422, title: "Not read", detail, code: "unread" };
    case "store-file":
      return { status: 422, title: "Not taken", detail, code: "store-file" };
    case "fields-refused":
      return { status: 422, title: "Not taken", detail, fields: (error as FieldsRefused).fields };
    case "too-many-lines":
      return { status: 503, title: "A moment", detail, code: "too-many-lines" };
    case "conflict":
    case "ladder-conflict":
      return { status: 409, title: "Taken", detail, code: "conflict" };
    case "unknown-session":
      return { status: 404, title: "Unknown session", detail: `${detail} The taps stay on the device.`, code: "unknown-session" };
    case "event-conflict":
      return { status: 409, title: "Saved otherwise", detail: `${detail} It stays on the device.`, code: "event-conflict" };
  }
  // The nets under the checks: something was removed or added between the look and the write.
  switch (brokenConstraint(error)) {
    case "foreign-key":
      return { status: 422, title: "Not taken", detail: "Something this belongs to is no longer there.", code: "gone" };
    case "unique":
      return { status: 409, title: "Taken", detail: "This is there already.", code: "conflict" };
  }
  const failure = storeFailure(error);
  return failure === null ? null : { ...FAILURES[failure], code: `store-${failure}` };
}

/** Where nothing better can be said. */
export const UNEXPECTED: Problem = {
  status: 500,
  title: "Not done",
  detail: "Something went wrong on the server. What was saved before is kept; try again.",
};
