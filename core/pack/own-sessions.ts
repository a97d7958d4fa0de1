import { aftermathOf, type SessionAftermath } from "../aftermath";
import { circleDigestOf } from "../circle";
import { isWork, worksLadders } from "../events/session-kind";
import { knowDigest } from "../know";
import { blockSeconds, carriedOver, evidenceOfSession, isSilent, type SessionRecord, sumsOfSession } from "../record";
import { handlerOfBegun } from "./begun";
import { secondsByLadder } from "./seconds-by-ladder";
import type { BegunSession, HorsePack, PackDigest, PackWorked, Unfinished } from "./types";

/** A session as this device holds it. */
export interface OwnSession {
  readonly begun: BegunSession;
  /** When it was made, on the server's clock as far as it is known. */
  readonly createdMs: number;
  readonly record: SessionRecord;
}

/** Whether anything was seen in it: what was opened and left is no session. */
const seenIn = ({ record }: OwnSession) => sumsOfSession(record).seen;

function digestOf({ begun, createdMs, record }: OwnSession): PackDigest {
  const { touches, relief, signs, sides, acts } = knowDigest(record);
  return {
    id: begun.id,
    kind: begun.kind,
    createdMs,
    startedMs: record.startWallMs ?? createdMs,
    touches,
    departures: relief.departures,
    signs,
    sides,
    ...(acts === undefined ? {} : { acts }),
  };
}

function aftermathsOf({ begun, record }: OwnSession): SessionAftermath[] {
  const aftermath = isWork(begun.kind) ? aftermathOf(record) : null;
  return aftermath === null ? [] : [{ session: begun.id, ...aftermath }];
}

function workedOf({ begun, record }: OwnSession): PackWorked {
  const { startedMs, workSeconds, trials, pieces, weighedGrams, doNext } = sumsOfSession(record);
  const seconds = secondsByLadder(record.blocks.map(({ ladder }, index) => ({ ladder, seconds: blockSeconds(record, index) })));
  const circle = circleDigestOf(record);
  return {
    id: begun.id,
    kind: begun.kind,
    startedMs,
    workSeconds,
    trials,
    pieces,
    weighedGrams,
    doNext,
    ladders: [...seconds.keys()],
    seconds: [...seconds.values()].map(Math.round),
    ...(circle === null ? {} : { circle }),
  };
}

function unfinishedOf({ begun, record }: OwnSession, nowMs: number): Unfinished[] {
  const { startedMs, finished, lastMs, shiftMs, trials, met, seen } = sumsOfSession(record);
  if (!isWork(begun.kind) || finished || startedMs === null) return [];
  const running = !isSilent(record, nowMs + shiftMs - startedMs);
  if (!seen && !running) return [];
  const behaviours = [...new Set(record.blocks.map(({ behaviour }) => behaviour))];
  return [{ id: begun.id, startedMs, lastTapMs: startedMs + lastMs, n: trials, met, behaviours, running }];
}

/**
 * A pack with the sessions this device has worked laid over it: what the
 * server has not seen yet counts for the next start, the sides and the caps
 * as if it had. A session both know is the device's.
 * @param own oldest first; of other horses too, which are left out.
 * @example withOwnSessions(pack, own, 1775044800000)
 */
export function withOwnSessions(pack: HorsePack, own: readonly OwnSession[], nowMs: number): HorsePack {
  const mine = own.filter(({ begun }) => begun.horse === pack.horse.id);
  if (mine.length === 0) return pack;
  const ids = new Set(mine.map(({ begun }) => begun.id));
  const others = <T extends { readonly id: string }>(list: readonly T[]) => list.filter(({ id }) => !ids.has(id));
  const seen = mine.filter(seenIn);
  const evidence = seen.flatMap(({ begun, record }) =>
    isWork(begun.kind) ? evidenceOfSession(begun.id, record, handlerOfBegun(begun)) : [],
  );
  const last = mine.at(-1)?.begun;
  return {
    ...pack,
    ladders: pack.ladders.map((ladder) => {
      const carried = new Map(ladder.carried.map(([version, rungs]) => [version, new Map(rungs)]));
      const added = carriedOver(
        evidence.filter((trial) => trial.ladder === ladder.id),
        ladder.version,
        carried,
      );
      const trials = [...ladder.trials.filter(({ session }) => !ids.has(session)), ...added];
      return added.length === 0 && trials.length === ladder.trials.length
        ? ladder
        : { ...ladder, trials: trials.sort((a, b) => a.wallMs - b.wallMs) };
    }),
    digests: [...others(pack.digests), ...seen.map(digestOf)].sort((a, b) => a.createdMs - b.createdMs),
    aftermaths: [...pack.aftermaths.filter(({ session }) => !ids.has(session)), ...seen.flatMap(aftermathsOf)].sort(
      (a, b) => a.startedMs - b.startedMs,
    ),
    worked: [...others(pack.worked), ...seen.map(workedOf)].sort((a, b) => (b.startedMs ?? 0) - (a.startedMs ?? 0)),
    open: [...mine.toReversed().flatMap((one) => unfinishedOf(one, nowMs)), ...others(pack.open)],
    last:
      last === undefined
        ? pack.last
        : {
            person: last.person,
            place: last.place,
            kit: mine.findLast(({ begun }) => worksLadders(begun.kind))?.begun.kit ?? pack.last.kit,
          },
  };
}
