import { type Chance, drawExponential } from "@/core/chance";
import { wrongChoiceCaution } from "@/core/conversation";
import { reduceSession } from "@/core/record";
import { SessionWriter } from "@/tests/support/session-writer";
import type { Claim } from "./claim";

/** Wrong choices of a session of fifteen minutes, at a rate a minute that falls by a half-time, each met by pressure. */
function wrongsOf(chance: Chance, perMinute: number, halfTimeMinutes: number | null, signs: "at random" | "none" = "none"): SessionWriter {
  const taps: { at: number; sign: boolean }[] = [];
  const times = (rate: number, sign: boolean) => {
    for (let at = drawExponential(chance, 1 / rate); at < 15; at += drawExponential(chance, 1 / rate)) taps.push({ at, sign });
  };
  times(perMinute, false);
  if (signs === "at random") times(1, true);
  const w = new SessionWriter();
  w.block(0);
  for (const { at, sign } of taps.sort((x, y) => x.at - y.at)) {
    if (sign) w.add(at * 60, "signal", { name: "braces", class: "tension" });
    // Thinning: drawn at the first rate, kept by how much of it is left.
    else if (halfTimeMinutes === null || chance() < 0.5 ** (at / halfTimeMinutes)) w.add(at * 60, "wrong", { met: "moved on", seconds: 3 });
  }
  w.add(900, "session.end");
  return w;
}

/** Whether a caution of a kind was there at any wrong choice, as the recorder looks at them. */
function heard(w: SessionWriter, kind: "most" | "tension"): boolean {
  const record = reduceSession(w.events);
  return record.timeLine.wrongs.some(({ startMs }) => {
    const until = {
      ...record,
      finishMs: startMs,
      timeLine: { ...record.timeLine, wrongs: record.timeLine.wrongs.filter((one) => one.startMs <= startMs) },
    };
    return wrongChoiceCaution(until, null)?.kind === kind;
  });
}

export const WRONG: Claim[] = [
  {
    sentence: "Ease: tension comes with wrong choices",
    horses: "signs of tension at random, one a minute, wrong choices too",
    asks: "false",
    atMost: 0.05,
    run: (chance) => heard(wrongsOf(chance, 0.6, null, "at random"), "tension"),
  },
];
