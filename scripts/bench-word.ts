import { adviceInputOf, theAdvice } from "@/core/advice";
import { reduceSession } from "@/core/record";
import { allowanceOn } from "@/core/welfare";
import { LADDER_ID, longSessionEvents, longSessionPlan } from "@/tests/support/long-session";
import { arithmeticMs } from "./yardstick";

/** For npm run bench: how long the word takes at the end of a session of 1 500 events. Prints JSON. */
const plan = longSessionPlan();
const events = longSessionEvents(1500);
const record = reduceSession(events);
const allowance = allowanceOn([], "2026-06-01", null);
const times: number[] = [];
for (let i = 0; i < 400; i++) {
  const started = performance.now();
  const input = adviceInputOf({
    session: "bench",
    record,
    nowMs: record.lastMs,
    plan,
    ladder: LADDER_ID,
    version: 1,
    handler: null,
    earlier: [],
    allowance,
    restingBreaths: 12,
  });
  // Late in a session the clock would have the word; here the trials must, which costs most.
  if (input === null) throw new Error("the session has no running block");
  theAdvice({
    ...input,
    minutesSinceRest: 1,
    trialsSinceRest: 1,
    workMinutes: 5,
    session: { trials: 0, planned: null },
    limits: undefined,
  });
  times.push(performance.now() - started);
}
// The first ones also compile.
times.splice(0, 50);
times.sort((a, b) => a - b);
process.stdout.write(
  JSON.stringify({
    events: events.length,
    trials: record.trials.length,
    yardstickMs: arithmeticMs(),
    median: times[Math.floor(times.length / 2)],
    p95: times[Math.floor(times.length * 0.95)],
  }),
);
