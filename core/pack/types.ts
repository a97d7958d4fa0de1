import type { SessionAftermath } from "../aftermath";
import type { ChainDirection, ChainLink } from "../behaviour";
import type { CircleDigest, CircleSetup, KitFit, LoadKind } from "../circle";
import type { SideSession } from "../compare";
import type { Day } from "../day";
import type { LoggedBegunCircle } from "../events/circle-log";
import type { PackTry } from "../experiment";
import type { KnowDigest, SignCounts, Touch } from "../know";
import type { LadderPlan, PinnedSign } from "../ladder";
import type { ZoneRule } from "../place";
import type { EvidenceTrial } from "../record";
import type { BehaviourInput, SessionEvent, SessionKind } from "../schemas";
import type { YardSettings } from "../settings";
import type { Allowance, GoneAgainst, Kit, Restriction } from "../welfare";

/** Something by its name. */
export interface Named {
  readonly id: string;
  readonly name: string;
}

/** A zone of a place. */
export interface Zone {
  readonly name: string;
  readonly kind: string;
  /** What holds there; left out where nothing does. */
  readonly rule?: ZoneRule;
}

/** One ladder of a horse, with the trials of the last months. */
export interface PackLadder {
  readonly id: string;
  readonly version: number;
  /** Which edit of the ladder this is, so that a change made elsewhere is not overwritten. */
  readonly revision: number;
  readonly behaviour: BehaviourInput;
  readonly plan: LadderPlan;
  /** What the behaviour involves that a restriction may name. */
  readonly involves: readonly string[];
  /** Cautions of the template it was made from. */
  readonly cautions: readonly string[];
  /** Oldest first; those of earlier versions under the present number where their rung stands unchanged. */
  readonly trials: readonly EvidenceTrial[];
  /** Rungs of earlier versions that stand unchanged: version, then old and present number. */
  readonly carried: readonly (readonly [number, readonly (readonly [number, number])[]])[];
}

/** What one session shows of the horse. */
export interface PackDigest {
  readonly id: string;
  readonly kind: SessionKind;
  readonly createdMs: number;
  readonly startedMs: number;
  readonly touches: readonly Touch[];
  readonly departures: number;
  readonly signs: SignCounts;
  readonly sides: SideSession;
  /** What its handler did, where that was counted. */
  readonly acts?: KnowDigest["acts"];
}

/** What one session of the last days used up, and left for the next. */
export interface PackWorked {
  readonly id: string;
  readonly kind: SessionKind;
  readonly startedMs: number | null;
  readonly workSeconds: number;
  readonly trials: number;
  readonly pieces: number;
  readonly weighedGrams: number | null;
  readonly doNext: string | null;
  /** Ladders worked in it. */
  readonly ladders: readonly string[];
  /** Seconds of work on each of them, in the same order. */
  readonly seconds: readonly number[];
  /** What it came to on the circle; left out for every other. */
  readonly circle?: CircleDigest;
}

/** How a horse works on the circle, as a device needs it. */
export interface PackCircle {
  readonly setup: CircleSetup;
  readonly fits: readonly (readonly [kit: string, fit: KitFit])[];
  /** Work entered by hand in the last weeks. */
  readonly byHand: readonly { readonly day: Day; readonly kind: LoadKind; readonly minutes: number }[];
}

/** A session of work that was begun and not finished. */
export interface Unfinished {
  readonly id: string;
  readonly startedMs: number;
  readonly lastTapMs: number;
  readonly n: number;
  readonly met: number;
  readonly behaviours: readonly string[];
  readonly running: boolean;
}

/** The horse itself. */
export interface PackHorse {
  readonly id: string;
  readonly name: string;
  /** Tells it from a horse of the same name; empty where there is none. */
  readonly apart: string;
  readonly sample: boolean;
  /** Why it is put away, or null. */
  readonly away: string | null;
  readonly bornDay: Day | null;
  readonly birthYear: number | null;
  /** Its own rate at rest, a minute; null where it is not known. */
  readonly restingBreaths: number | null;
  /** Bears heat badly, as somebody said; left out where nobody did. */
  readonly bearsHeatBadly?: boolean;
  /** Signs it is watched for, whatever it works on; left out where there are none. */
  readonly pinned?: readonly PinnedSign[];
  /** Days on which the yard's own settings for young horses were gone against. */
  readonly goneAgainst?: readonly GoneAgainst[];
}

/** A chain of the horse, with the names of its links in the order they are asked. */
export interface PackChain extends Named {
  readonly direction: ChainDirection;
  readonly links: readonly (ChainLink & { readonly name: string })[];
}

/** What the last months of a horse show of moments, for a quiet line at the horse. */
export interface PackMoments {
  /** After so many good answers, this share of sessions had not turned yet; left out where turning is not shown. */
  readonly turns?: readonly (readonly [good: number, share: number])[];
  /** What is shown to come before it leaves or shows danger, strongly enough to be said in time. */
  readonly before?: readonly { readonly kind: string; readonly name: string; readonly followed: number; readonly bouts: number }[];
}

/** Everything a device needs to work one horse with no server: by it the server's own pages are made too. */
export interface HorsePack {
  readonly horse: PackHorse;
  /** Those that were not ended; which hold depends on the day. */
  readonly restrictions: readonly Restriction[];
  /** Those that are not put away. */
  readonly ladders: readonly PackLadder[];
  /** Of a year, oldest first. */
  readonly digests: readonly PackDigest[];
  /** What sessions of work left for the next start, oldest first. */
  readonly aftermaths: readonly SessionAftermath[];
  /** Newest first. */
  readonly worked: readonly PackWorked[];
  readonly open: readonly Unfinished[];
  /** Chains of its behaviours. */
  readonly chains: readonly PackChain[];
  /** Experiments that are not ended. */
  readonly tries: readonly PackTry[];
  /** What the last months say of moments; left out where nothing is shown. */
  readonly moments?: PackMoments;
  readonly circle: PackCircle;
  readonly last: { readonly person: string | null; readonly place: string | null; readonly kit: readonly string[] };
  /** Why a device could not read what it keeps of the horse: then there are no ladders and no advice, and what restricts it is all there is. Left out where it could. */
  readonly unread?: string;
}

/** What is the same for every horse of the yard. */
export interface YardFacts {
  readonly timeZone: string;
  readonly settings: YardSettings;
  readonly people: readonly Named[];
  /** Signs the yard has added to the product's own. */
  readonly ownSigns: readonly PinnedSign[];
  readonly places: readonly (Named & {
    readonly zones: readonly Zone[];
    /** The widest circle that fits it, in metres; null where that is not known. */
    readonly acrossMetres: number | null;
  })[];
  readonly kit: readonly ({ readonly id: string } & Kit)[];
}

/** A session as it is begun. */
export interface BegunSession {
  readonly id: string;
  readonly horse: string;
  readonly kind: SessionKind;
  readonly ladder: string | null;
  readonly person: string | null;
  readonly place: string | null;
  readonly start_rung: number | null;
  readonly kit: readonly string[];
  /** Of a session on the circle: its plan, and what was gone against. */
  readonly circle?: LoggedBegunCircle | null;
  /** Why a ladder on the circle is worked though a cap is used up. */
  readonly against?: string;
  /** Who and where, where they were named on the spot and have no id yet. */
  readonly person_name?: string;
  readonly place_name?: string;
}

/** The yard as it travels: its facts, its horses by name, and which store it is. */
export interface PackedYard {
  readonly version: number;
  readonly store: string;
  /** Changes with each restore. */
  readonly epoch: string;
  /** How far the store's events reach. */
  readonly position: number;
  /** Server wall clock. */
  readonly nowMs: number;
  readonly facts: YardFacts;
  readonly me: Me;
  readonly horses: readonly (Named & { readonly away: string | null; readonly sample: boolean; readonly apart: string })[];
}

/** A session with every tap of it. */
export interface SessionWhole {
  readonly begun: BegunSession;
  readonly createdMs: number;
  readonly events: readonly SessionEvent[];
  readonly clocks: Readonly<Record<string, number>>;
  /** How far the store had them. */
  readonly position: number;
}

/** What restrictions and age allow today, with the sentences they come from. */
export interface CareNews {
  readonly allowance: Allowance;
  readonly cautions: readonly string[];
  /** The thresholds of the yard. */
  readonly wordSettings: YardSettings;
}

/** What is new in a session, as whoever follows it is told. */
export interface SessionNews {
  readonly events: readonly SessionEvent[];
  readonly position: number;
  /** Since which restore the store counts its positions. */
  readonly epoch: string;
  readonly clocks: Readonly<Record<string, number>>;
  /** Where it has changed since it was told last. */
  readonly care?: CareNews;
  /** Whether it lies in the bin; told with what is allowed. */
  readonly binned?: boolean;
}

/** Who a device is to the server. */
export interface Me {
  /** False on the computer itself, where nobody signs in. */
  readonly network: boolean;
  readonly name: string | null;
  readonly access: "owner" | "helper";
  /** Under which its taps are logged; null where the device chooses. */
  readonly recorder: string | null;
  /** Addresses this kind of device was used under before: taps that were not sent from there wait there. */
  readonly olderHosts: readonly string[];
}
