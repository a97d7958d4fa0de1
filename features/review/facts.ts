import type { DatedActs } from "@/core/conversation";
import { isWatch, isWork, SESSION_KIND_FACTS } from "@/core/events/session-kind";
import { compareSigns, knowDigest } from "@/core/know";
import type { PackDigest } from "@/core/pack";
import { type Correction, correctionsOf, type Moved, movedFrom, type SessionRecord } from "@/core/record";
import type { SessionEvent, SessionKind } from "@/core/schemas";
import type { YardSettings } from "@/core/settings";
import { actsBefore, usualSigns } from "@/core/today";
import { recordersOf } from "./recorders";

/** What a review says beside the session's own record. */
export interface ReviewFacts {
  /** This session's signs beside the horse's own usual, in words. */
  readonly signs: readonly string[];
  /** Whether its blocks are on rungs of ladders. */
  readonly onLadders: boolean;
  /** Whether the horse was only watched, so that nothing is missing without an ask. */
  readonly watched: boolean;
  /** Where it came from, where it was put to another horse. */
  readonly moved: Moved | null;
  /** Who recorded it, where there were several. */
  readonly recorders: readonly { readonly who: string; readonly taps: number }[];
  /** What this handler did in earlier sessions with this horse, oldest first. */
  readonly earlierActs: readonly DatedActs[];
  readonly corrections: readonly Correction[];
}

/**
 * The same for the server's page and for a device that has only the pack.
 * @param digests of the horse's sessions, oldest first; those from before and of the same kind are its usual.
 */
export function reviewFacts(
  record: SessionRecord,
  events: readonly SessionEvent[],
  session: { readonly kind: SessionKind; readonly createdMs: number },
  digests: readonly PackDigest[],
  settings: Pick<YardSettings, "usualDays" | "watchLeastMinutes">,
): ReviewFacts {
  const own = knowDigest(record).signs;
  const usual = usualSigns(digests, session, settings.usualDays);
  const signs = !SESSION_KIND_FACTS[session.kind].signs
    ? []
    : (["tension", "ease", "danger", "pain"] as const).flatMap((kind) => compareSigns(own, usual, kind, settings.watchLeastMinutes) ?? []);
  return {
    signs: signs.filter(({ here, usual: before }) => here.count + before.count > 0).map(({ words }) => words),
    onLadders: isWork(session.kind),
    watched: isWatch(session.kind),
    moved: movedFrom(events),
    recorders: recordersOf(events),
    earlierActs: actsBefore(digests, { createdMs: session.createdMs, handler: record.header?.handler ?? null }),
    corrections: correctionsOf(events),
  };
}
