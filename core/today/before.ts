import type { DatedActs } from "../conversation";
import { worksLadders } from "../events/session-kind";
import type { KnowDigest, SignCounts, Touch } from "../know";
import type { HorsePack } from "../pack";
import { standingDoNext } from "../record";
import type { SessionKind } from "../schemas";
import { MILLISECONDS_PER_DAY } from "../units";

/** What was written for next time and still stands; see standingDoNext. @example doNextOf(pack, null) // { dayMs: 1774869084977, … } */
export const doNextOf = (pack: Pick<HorsePack, "worked">, before: string | null, ladder: string | null = null) =>
  standingDoNext(
    pack.worked.filter(({ kind }) => worksLadders(kind)),
    before,
    ladder,
  );

/** What the body map holds of other sessions. @example touchesBefore(pack, "new") // 50 of them */
export const touchesBefore = (pack: HorsePack, session: string): Touch[] =>
  pack.digests.filter(({ id }) => id !== session).flatMap(({ touches }) => touches);

/**
 * What a handler did in sessions before one, where that was counted, oldest first.
 * @example actsBefore(digests, { createdMs: nowMs, handler: "An" }).length // 3
 */
export const actsBefore = (
  digests: readonly { readonly createdMs: number; readonly startedMs: number | null; readonly acts?: KnowDigest["acts"] }[],
  session: { readonly createdMs: number; readonly handler: string | null },
): DatedActs[] =>
  digests
    .filter(({ createdMs, acts }) => acts !== undefined && createdMs < session.createdMs && acts.handler === (session.handler ?? ""))
    .flatMap(({ startedMs, acts }) =>
      acts === undefined || startedMs === null ? [] : [{ startedMs, minutes: acts.minutes, counts: acts.counts }],
    );

/**
 * The horse's usual signs before a session: those of earlier sessions of the same kind within the days that count.
 * @example usualSigns(digests, { kind: "work", createdMs: nowMs }, 60).length // 8
 */
export const usualSigns = (
  digests: readonly { readonly kind: SessionKind; readonly createdMs: number; readonly signs: SignCounts }[],
  session: { readonly kind: SessionKind; readonly createdMs: number },
  usualDays: number,
): SignCounts[] =>
  digests
    .filter(
      ({ kind, createdMs }) =>
        kind === session.kind && createdMs < session.createdMs && createdMs >= session.createdMs - usualDays * MILLISECONDS_PER_DAY,
    )
    .map(({ signs }) => signs);
