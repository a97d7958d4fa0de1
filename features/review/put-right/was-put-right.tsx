import type { Correction } from "@/core/record";
import type { SessionEvent } from "@/core/schemas";
import { Day } from "@/ui/day";
import type { Saving } from "./facts";

const WHAT: Partial<Record<SessionEvent["type"], string>> = {
  "session.start": "the session",
  "block.start": "a block",
  note: "a note",
  ask: "a trial",
  trial: "a trial",
};

/** Corrections as lines: what was struck in one moment is one, a block with all its answers. */
export function correctionLines(corrections: readonly Correction[]): readonly Correction[] {
  const said = corrections.filter(({ type }) => WHAT[type] !== undefined);
  return said.filter((one) => {
    const moment = said.filter(({ wallMs }) => wallMs === one.wallMs);
    return one === (moment.find(({ type }) => type === "block.start") ?? moment[0]);
  });
}

/** What was put right so far, with the way back. Nothing where nothing was. */
export function WasPutRight({ corrections, saving }: { corrections: readonly Correction[]; saving: Saving }) {
  const lines = correctionLines(corrections);
  if (lines.length === 0) return null;
  // What was struck with it, in the same moment, comes back with it.
  const bringBack = ({ wallMs: moment }: Correction) =>
    void saving.save(
      corrections
        .filter(({ struck, wallMs }) => struck && wallMs === moment)
        .map(({ of }) => ({ type: "correct", payload: { event: of, strike: false, reason: "brought back" } })),
    );
  return (
    <section>
      <h3 className="mb-1 font-semibold">What was put right</h3>
      <ul>
        {lines.map((one) => (
          <li key={one.id} className="flex flex-wrap items-baseline gap-x-4 py-0.5">
            <span>
              <Day ms={one.wallMs} time />: {WHAT[one.type]} {one.struck ? "struck" : "put right"}. {one.reason}
            </span>
            {one.struck && (
              <button type="button" className="link" disabled={saving.busy} onClick={() => bringBack(one)}>
                Bring back
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
