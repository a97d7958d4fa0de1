import type { Chance } from "@/core/chance";
import { drawNormal } from "@/core/chance";
import { type SideSession, sidePicture } from "@/core/compare";
import { reliefMap, type SessionRelief } from "@/core/know";
import { type Claim, DAY_SPREAD, logit, SEASON, SEASON_LOOKS, share, trialsOf, upTo } from "./claim";

type Work = "both sides a session" | "one side a day" | "one side on the harder rung";

/** A season of sessions; the side is behind by so much on the logit. */
function sideSeason(chance: Chance, work: Work, behind: number): SideSession[] {
  return upTo(SEASON).map((day) => {
    // The horse gets better over the season, and each day is its own; sides have their days too.
    const today = logit(0.6) + day * 0.04 + drawNormal(chance, 0, DAY_SPREAD);
    const side = (which: "L" | "R") => today + drawNormal(chance, 0, 0.3) - (which === "L" ? behind : 0);
    const cell = (stratum: string, left: number, right: number, harder = 0) => ({
      stratum,
      first: trialsOf(chance, left, share(side("L") - harder)),
      second: trialsOf(chance, right, share(side("R") - harder)),
    });
    if (work === "both sides a session") return [{ ...cell("a", 8, 8), began: day % 2 === 0 ? "first" : "second" }];
    if (work === "one side a day") return [day % 2 === 0 ? cell("a", 12, 0) : cell("a", 0, 12)];
    return [cell("a", 3, 8), cell("b", 8, 3, 0.8)];
  });
}

/** Looked at after every session of a season: whether a side is ever called weaker. */
const everCalled = (sessions: readonly SideSession[]) => upTo(SEASON).some((n) => sidePicture(sessions.slice(0, n + 1)).weaker !== null);

export const SIDES: Claim[] = (["both sides a session", "one side a day", "one side on the harder rung"] as const).map((work) => ({
  sentence: "Left is weaker",
  horses: `equal sides, ${work}, ${SEASON_LOOKS}`,
  long: true,
  asks: "false",
  atMost: 0.05,
  run: (chance) => everCalled(sideSeason(chance, work, 0)),
}));
SIDES.push({
  sentence: "Left is weaker",
  horses: `left about 25 points behind, both sides a session, after ${SEASON} sessions`,
  asks: "found",
  atLeast: 0.8,
  run: (chance) => sidePicture(sideSeason(chance, "both sides a session", 1.1)).weaker === "L",
});

function placeSeason(chance: Chance, easier: number, order: "drawn" | "fixed" = "drawn", warmsUp = 0): SessionRelief[] {
  return upTo(SEASON).map(() => {
    const today = drawNormal(chance, 0, DAY_SPREAD);
    const names = ["gate", "middle", "corner"];
    const walked =
      order === "fixed"
        ? names
        : names
            .map((name) => ({ name, at: chance() }))
            .sort((a, b) => a.at - b.at)
            .map(({ name }) => name);
    const zones = walked.map((zone, i) => {
      const seconds = 60 + 120 * chance();
      const pressure = share(logit(0.35) + today + drawNormal(chance, 0, 0.5) - (zone === "gate" ? easier : 0) - i * warmsUp);
      const counts = { releases: 4, reinforcers: 4, departuresFrom: 0, departuresTo: 0, trials: 4, met: 3, easeSigns: 0, tensionSigns: 0 };
      return { zone, seconds, pressureSeconds: seconds * pressure, untimed: 0, wrongs: 0, untimedWrongs: 0, ...counts };
    });
    const stays = zones.map(({ zone, seconds }) => ({ zone, seconds, left: true }));
    return { zones, stays, secondsElsewhere: 0, departures: 0 };
  });
}

export const PLACES: Claim[] = [
  {
    sentence: "Easier at the gate / Harder at the gate",
    horses: `three zones alike, ${SEASON_LOOKS}`,
    long: true,
    asks: "false",
    atMost: 0.05,
    run: (chance) => {
      const sessions = placeSeason(chance, 0);
      return upTo(SEASON).some((n) => /^(Easier|Harder)/.test(reliefMap(sessions.slice(0, n + 1)).sentence));
    },
  },
  {
    sentence: "Easier at the gate / Harder at the gate",
    horses: `the gate easier by about 20 points, after ${SEASON} sessions`,
    asks: "found",
    atLeast: 0.8,
    run: (chance) => reliefMap(placeSeason(chance, 1.2)).sentence.startsWith("Easier at gate"),
  },
  {
    sentence: "Easier at the gate / Harder at the gate",
    horses: `three zones alike, always in the same order, easier by and by within the session, ${SEASON_LOOKS}`,
    long: true,
    asks: "false",
    atMost: 0.05,
    run: (chance) => {
      const sessions = placeSeason(chance, 0, "fixed", 0.6);
      return upTo(SEASON).some((n) => /^(Easier|Harder)/.test(reliefMap(sessions.slice(0, n + 1)).sentence));
    },
  },
];
